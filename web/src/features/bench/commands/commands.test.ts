import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h, nextTick, shallowRef } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import type { StepKind } from '@/shared/catalogue'
import { valueAt } from '@/shared/values'
import type { Flat } from '../state/useEvaluation'
import { useDocument } from '../state/useDocument'
import { useSelection } from '../state/useSelection'
import { useBenchKeys, type BenchKeys } from './useBenchKeys'
import { useCardCommands } from './useCardCommands'
import { useStepCommands } from './useStepCommands'

beforeEach(() => setActivePinia(createPinia()))

const said: string[] = []
vi.mock('@/shared/messages', () => ({ tell: (message: string) => said.push(message) }))

const stored = {
  name: 'Whale',
  units: 'mm',
  card: { size: { name: 'A6', width: 105, height: 148 }, turned: false, folding: { kind: 'side-fold', gap: 1 } },
  papers: [{ id: 'p', name: 'Sand' }],
  artworks: {},
  pieces: [
    {
      id: 'base', name: 'Base', paper: 'p',
      steps: [
        { id: 's1', kind: 'blank', on: true },
        { id: 's2', kind: 'window', on: true, dx: 0 },
        { id: 's3', kind: 'crease', on: true },
      ],
    },
  ],
} as object as DesignData

function bench() {
  const design = useDocument()
  design.put(stored, { anew: true })
  const selection = useSelection(design.document)
  const flat = shallowRef<Flat | null>(null)
  const steps = useStepCommands(design, selection, flat)
  const card = useCardCommands(design, selection)
  const keys = () => design.document.value!.pieces[0]!.steps.map((s) => s.id)
  return { design, selection, flat, steps, card, keys }
}
const step = (b: ReturnType<typeof bench>, id: string) => b.design.document.value!.pieces[0]!.steps.find((s) => s.id === id)
const kindOf = (kind: string, starts: string | null) =>
  ({ kind, starts_with: starts, form: { properties: { dx: { type: 'number', default: 4 } } } }) as object as StepKind

beforeEach(() => said.splice(0))

describe('commands on steps', () => {
  it('sets values of the step in hand alone, and nothing while none is', () => {
    const b = bench()
    b.steps.setValues({ dx: 9 })
    expect(b.design.canUndo.value).toBe(false)
    b.selection.stepId.value = 's2'
    b.steps.setValues({ dx: 9 })
    expect(valueAt(step(b, 's2'), 'dx')).toBe(9)
    expect(step(b, 's3')).toEqual(stored.pieces[0]!.steps[2])
  })

  it('shows passing values that one undo does not see', () => {
    const b = bench()
    b.selection.stepId.value = 's2'
    b.steps.previewValues({ dx: 3 })
    b.steps.previewValues({ dx: 5 })
    expect(valueAt(step(b, 's2'), 'dx')).toBe(5)
    b.design.giveUp()
    expect(valueAt(step(b, 's2'), 'dx')).toBe(0)
    b.steps.previewValues({ dx: 5 })
    b.steps.setValues({ dx: 6 })
    b.design.undo()
    expect(valueAt(step(b, 's2'), 'dx')).toBe(0)
    expect(b.design.canUndo.value).toBe(false)
  })

  it('puts a step in behind the one in hand, a start before all, and takes it in hand', () => {
    const b = bench()
    b.selection.stepId.value = 's2'
    b.steps.addStep(kindOf('weld', null))
    const added = b.selection.stepId.value!
    expect(b.keys()).toEqual(['s1', 's2', added, 's3'])
    expect(step(b, added)).toMatchObject({ kind: 'weld', on: true, dx: 4 })
    b.steps.addStep(kindOf('figure', 'figure'))
    expect(b.keys()[0]).toBe(b.selection.stepId.value)
  })

  it('puts it last where no step is in hand', () => {
    const b = bench()
    b.steps.addStep(kindOf('weld', null))
    expect(b.keys().at(-1)).toBe(b.selection.stepId.value)
  })

  it('switches, moves, duplicates and removes', async () => {
    const b = bench()
    b.steps.actOn('s2', 'switch')
    expect(step(b, 's2')!.on).toBe(false)
    b.steps.actOn('s2', 'later')
    expect(b.keys()).toEqual(['s1', 's3', 's2'])
    b.steps.actOn('s2', 'later') // there is no later place
    expect(b.keys()).toEqual(['s1', 's3', 's2'])
    b.steps.actOn('s2', 'duplicate')
    const copy = b.selection.stepId.value!
    expect(b.keys()).toEqual(['s1', 's3', 's2', copy])
    b.steps.actOn(copy, 'remove')
    await nextTick()
    expect(b.selection.stepId.value).toBe('s2')
    b.steps.actOn('gone', 'remove')
    expect(b.keys()).toEqual(['s1', 's3', 's2'])
  })

  it('has the last step in hand when undo takes away the one that was', async () => {
    const b = bench()
    b.selection.stepId.value = 's2'
    b.steps.addStep(kindOf('weld', null))
    await nextTick()
    b.design.undo()
    await nextTick()
    expect(b.keys()).toEqual(['s1', 's2', 's3'])
    expect(b.selection.stepId.value).toBe('s3')
  })

  it('keeps what was picked by its shares, and gives it back', () => {
    const b = bench()
    b.selection.stepId.value = 's2'
    const candidates = [{ taken: false, share: [0.1, 0.2] }, { taken: true, share: [0.5, 0.5] }]
    const handle = { shape: 'pick', field: 'picks', picked_by: 'which', candidates }
    b.flat.value = { handles: [handle] } as object as Flat
    b.steps.toggle(0)
    expect(step(b, 's2')).toMatchObject({ which: 'picked', picks: [[0.1, 0.2], [0.5, 0.5]] })
    b.steps.toggle(1)
    expect(valueAt(step(b, 's2'), 'picks')).toEqual([])
    b.steps.toggle(7) // there is no such thing
    expect(valueAt(step(b, 's2'), 'picks')).toEqual([])
  })

  it('mends in one step to undo, says so, and takes what was mended in hand', () => {
    const b = bench()
    const change = { op: 'set', piece: 'base', step: 's2', values: { dx: 6 } } as const
    b.steps.mend({ title: '6 mm to the right', changes: [change] } as object as Schemas['MendView'])
    expect(b.selection.stepId.value).toBe('s2')
    expect(said).toEqual(['Mended: 6 mm to the right. Undo takes it back.'])
    b.design.undo()
    expect(valueAt(step(b, 's2'), 'dx')).toBe(0)
  })

  it('sets an artwork for the step itself, and its layers anew', () => {
    const b = bench()
    b.selection.stepId.value = 's2'
    const artwork = { name: 'Sail', scale: 1, layers: [] }
    b.steps.setOutline('ref', { values: {}, drawn: { key: 'a1', artwork } } as object as Parameters<typeof b.steps.setOutline>[1])
    expect(step(b, 's2')).toMatchObject({ ref: 'a1', layers: [] })
    expect(b.design.document.value!.artworks.a1).toEqual(artwork)
  })
})

describe('commands on the card', () => {
  it('names it, but not with nothing', () => {
    const b = bench()
    b.card.rename('  ')
    expect(b.design.canUndo.value).toBe(false)
    b.card.rename(' Harbour ')
    expect(b.design.document.value!.name).toBe('Harbour')
  })

  it('takes a measure within bounds and says why not beyond', () => {
    const b = bench()
    b.card.setMeasure('x', 9)
    b.card.setMeasure('y', 1001)
    expect(said).toEqual(Array(2).fill('A card is between 10 and 1000 mm wide and high.'))
    expect(b.design.canUndo.value).toBe(false)
    b.card.setMeasure('y', 150)
    expect(b.design.document.value!.card.size).toMatchObject({ name: 'Own size', width: 105, height: 150 })
  })

  it('makes a piece of a part, and goes to it', () => {
    const b = bench()
    const part = { number: 2, start: { kind: 'part', piece: 'base', step: 's2', number: 2 } } as object as Schemas['PartView']
    b.card.makePieces([part])
    expect(b.selection.piece.value).toMatchObject({ id: b.selection.pieceId.value, name: 'Base, part 2', paper: 'p' })
    expect(b.selection.step.value).toMatchObject({ kind: 'part', number: 2 })
  })

  it('shows a folding in passing and keeps it when it counts', () => {
    const b = bench()
    b.card.previewFolding({ gap: 3 })
    b.design.giveUp()
    expect(valueAt(b.design.document.value!.card.folding, 'gap')).toBe(1)
    b.card.setFolding({ gap: 3 })
    b.card.setUnit('in')
    b.design.undo()
    expect(b.selection.unit.value).toBe('mm')
    expect(valueAt(b.design.document.value!.card.folding, 'gap')).toBe(3)
  })
})

describe('what is in hand', () => {
  it('is the finished piece at the last step that is on', () => {
    const b = bench()
    b.selection.stepId.value = 's3'
    expect(b.selection.finished.value).toBe(true)
    b.selection.stepId.value = 's2'
    expect(b.selection.finished.value).toBe(false)
    b.steps.actOn('s3', 'switch')
    expect(b.selection.finished.value).toBe(true)
    expect(b.selection.paper.value!.name).toBe('Sand')
  })
})

describe('keys of the bench', () => {
  const called: string[] = []
  let searching = false
  const act = new Proxy({} as BenchKeys, {
    get: (_, name: string) =>
      name === 'searching' ? () => searching : (by?: number) => called.push(typeof by === 'number' ? `${name} ${by}` : name),
  })
  const page = defineComponent({
    setup() {
      useBenchKeys(act)
      return () => h('div', [h('input'), h('input', { readonly: true })])
    },
  })
  beforeEach(() => {
    called.splice(0)
    searching = false
  })

  function press(target: Element, key: string, more: KeyboardEventInit = {}) {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more })
    target.dispatchEvent(event)
    return event.defaultPrevented
  }

  it.each([
    ['z', { ctrlKey: true }, 'undo'],
    ['Z', { ctrlKey: true, shiftKey: true }, 'redo'],
    ['y', { metaKey: true }, 'redo'],
    ['s', { ctrlKey: true }, 'save'],
    ['/', {}, 'search'],
    ['f', {}, 'whole'],
    ['F', { shiftKey: true }, 'near'],
    ['i', {}, 'turnOver'],
    ['l', {}, 'bare'],
    ['.', {}, 'loupe 1'],
    [',', {}, 'loupe -1'],
    ['Escape', {}, 'giveUp'],
  ])('%s with %o calls %s', (key, more, name) => {
    const made = mount(page, { attachTo: document.body })
    press(made.element, key, more)
    made.unmount()
    expect(called).toEqual([name])
  })

  it('leave alone what is typed, but for saving', () => {
    const made = mount(page, { attachTo: document.body })
    const [typed, list] = made.findAll('input')
    for (const key of ['f', '/', 'i', 'l']) expect(press(typed!.element, key)).toBe(false)
    expect(press(typed!.element, 'z', { ctrlKey: true })).toBe(false)
    expect(called).toEqual([])
    expect(press(typed!.element, 's', { ctrlKey: true })).toBe(true)
    press(list!.element, 'i') // a list is not typed into
    expect(called).toEqual(['save', 'turnOver'])
    made.unmount()
    press(document.body, 'f')
    expect(called).toHaveLength(2)
  })

  it('do not open a search that is open, and leave keys of the browser', () => {
    const made = mount(page, { attachTo: document.body })
    searching = true
    expect(press(made.element, '/')).toBe(false)
    expect(press(made.element, 'p', { ctrlKey: true })).toBe(false)
    press(made.element, 'f', { altKey: true })
    expect(called).toEqual([])
    made.unmount()
  })
})
