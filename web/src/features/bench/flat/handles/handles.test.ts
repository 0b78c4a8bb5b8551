import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { nextTick, type Component } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Typed } from '../typed'
import type { Viewport } from '../useViewport'
import AroundHandle from './AroundHandle.vue'
import BoxHandle from './BoxHandle.vue'
import type * as kinds from './handle'
import LineHandle from './LineHandle.vue'
import SizeGrips from './SizeGrips.vue'

/** A pointer's event; there are none of their own here. */
async function point(element: Element, type: string, init: MouseEventInit = {}) {
  element.dispatchEvent(new MouseEvent(`pointer${type}`, { bubbles: true, button: 0, ...init }))
  await nextTick()
}

/** Two pixels to a mm, without an offset. */
function viewport(inside = false): Viewport {
  const sign = inside ? -1 : 1
  return {
    view: { x: 0, y: 0, scale: 2, width: 800, height: 500, touched: false, inside },
    toX: (mm: number) => sign * mm * 2,
    toY: (mm: number) => mm * 2,
    alongX: (px: number) => (sign * px) / 2,
    alongY: (px: number) => px / 2,
    transform: { value: '' },
  } as Partial<Viewport> as Viewport
}

const box: kinds.BoxHandle = {
  shape: 'box', across: { field: 'dx', value: 0, factor: 1, least: null },
  down: { field: 'dy', value: 0, factor: 1, least: null }, box: [40, 30, 60, 50], outline: '',
  word: 'circle', sizing: null, turn: null,
}
const line: kinds.LineHandle = {
  shape: 'line', sets: { field: 'lap', value: 4, factor: -2, least: 0 }, axis: 'x', at: 58, origin: 60, word: 'lap',
}
const around: kinds.AroundHandle = {
  shape: 'around', field: 'angles.1', value: 0, centre: [0, 0], box: [9.5, -0.5, 10.5, 0.5], word: 'bridge 2',
}
const VALUES = { dx: 0, dy: 0, out: 6, along: 0, lap: 4, angles: [] }

function held(component: Component, handle: kinds.Handle, inside = false, more: object = {}) {
  const wrapper = mount(component, {
    props: { handle, values: VALUES, guides: [], within: [0, 0, 100, 100], viewport: viewport(inside), unit: 'mm', ...more },
  })
  const grip = wrapper.find('.handle')
  Object.assign(grip.element, { setPointerCapture: () => undefined })
  const drag = async (dx: number, dy: number, altKey = false) => {
    await point(grip.element, 'down', { clientX: 0, clientY: 0 })
    await point(grip.element, 'move', { clientX: dx, clientY: dy, altKey })
    await point(grip.element, 'up')
  }
  const nudge = async (key: string, shiftKey = false) => {
    await grip.trigger('keydown', { key, shiftKey })
    await grip.trigger('keyup', { key })
  }
  return { wrapper, grip, drag, nudge, committed: () => wrapper.emitted('commit')?.map((e) => e[0]) }
}
const handle = (more: Partial<kinds.BoxHandle> = {}, inside = false, effect: Schemas['EffectView'] | null = null) =>
  held(BoxHandle, { ...box, ...more }, inside, { effect })

describe('a line in hand', () => {
  it('makes its value of where it is, in its own sense, and not below what it may be', async () => {
    const { drag, committed } = held(LineHandle, line)
    await drag(-6, 50, true)
    await drag(60, 0, true)
    expect(committed()).toEqual([{ lap: 10 }, { lap: 0 }])
  })

  it('snaps to a guide unless that is held off', async () => {
    const guides = [{ axis: 'x', at: 55, word: 'front centre', edge: '' }]
    const { drag, committed } = held(LineHandle, line, false, { guides })
    await drag(-5, 0)
    await drag(-5, 0, true)
    expect(committed()).toEqual([{ lap: 10 }, { lap: 9 }])
  })

  it('goes to the side of the key that is pressed, and only across itself', async () => {
    const { nudge, committed } = held(LineHandle, line)
    await nudge('ArrowLeft')
    await nudge('ArrowDown')
    await nudge('ArrowRight', true)
    expect(committed()).toEqual([{ lap: 4.1 }, { lap: 3 }])
  })

  it('takes a figure typed over its own', async () => {
    const { wrapper, committed } = held(LineHandle, line)
    await wrapper.find('.bubble').trigger('click')
    const typed = wrapper.emitted('type')![0]![0] as Typed
    expect(typed).toMatchObject({ value: 4, label: 'lap' })
    typed.take(-3)
    expect(committed()).toEqual([{ lap: 0 }])
  })
})

describe('a thing in hand', () => {
  it('is moved by so many mm as the pointer goes', async () => {
    const { drag, committed } = handle()
    await drag(13, 5, true)
    expect(committed()).toEqual([{ dx: 6.5, dy: 2.5 }])
  })

  it('is moved the other way when the sheet is seen from inside', async () => {
    const { drag, committed } = handle({}, true)
    await drag(13, 5, true)
    expect(committed()).toEqual([{ dx: -6.5, dy: 2.5 }])
  })

  it('changes its values in their own sense, and not below what they may be', async () => {
    const over = {
      across: { field: 'out', value: 6, factor: -1, least: 0.1 },
      down: { ...box.down, field: 'along' },
    }
    const { drag, committed } = handle(over)
    await drag(4, 0, true)
    await drag(40, 0, true)
    expect(committed()).toEqual([{ out: 4, along: 0 }, { out: 0.1, along: 0 }])
  })

  it('is nudged by the arrow keys, by tenths and by whole mm', async () => {
    const { nudge, committed } = handle()
    await nudge('ArrowRight')
    await nudge('ArrowUp', true)
    expect(committed()).toEqual([{ dx: 0.1, dy: 0 }, { dx: 0, dy: -1 }])
  })

  it('shows its gaps, each of which can be typed over', async () => {
    const { wrapper, committed } = handle()
    const texts = wrapper.findAll('.gaps text').map((t) => t.text())
    expect(texts).toEqual(['40', '40', '30', '50'])
    await wrapper.find('[data-gap=right]').trigger('click')
    const typed = wrapper.emitted('type')![0]![0] as Typed
    expect(typed).toMatchObject({ value: 40, label: 'From the right' })
    typed.take(35)
    expect(committed()).toEqual([{ dx: 5 }])
  })

  it('tells what becomes of the closed card, and when it is too large', () => {
    const effect = { closed: [114, 139.7] as [number, number], room: -3.5, slack: 2, envelope: 'A2' }
    const { wrapper } = handle({}, false, effect)
    expect(wrapper.find('.outcome').text()).toBe('closed 114 × 139.7, room -3.5 mm')
    expect(wrapper.find('.outcome').classes()).toContain('over')
  })

  it('goes round another place by its angle', async () => {
    const { drag, committed } = held(AroundHandle, around)
    await drag(-20, 20)
    expect(committed()).toEqual([{ 'angles.1': 90 }])
  })
})

describe('a figure typed while something is dragged', () => {
  const press = async (key: string) => {
    window.dispatchEvent(new KeyboardEvent('keydown', { key, cancelable: true }))
    await nextTick()
  }

  it('ends dragging, and is the figure of the way it went', async () => {
    const { wrapper, grip, committed } = handle()
    await point(grip.element, 'down', { clientX: 0, clientY: 0 })
    await point(grip.element, 'move', { clientX: 3, clientY: 11, altKey: true })
    await press('a')
    expect(wrapper.emitted('type')).toBeUndefined()
    await press('2')
    const typed = wrapper.emitted('type')![0]![0] as Typed
    expect(typed).toMatchObject({ begun: '2', label: 'circle, down' })
    typed.take(21.5)
    expect(committed()).toEqual([{ dx: 1.5, dy: 5.5 }, { dy: 21.5 }])
    // it is let go: nothing that is typed now is for it
    await press('3')
    expect(wrapper.emitted('type')).toHaveLength(1)
  })

  it('is the value of a line, and an angle in degrees', async () => {
    const one = held(LineHandle, line)
    await point(one.grip.element, 'down', { clientX: 0, clientY: 0 })
    await press('5')
    const typed = one.wrapper.emitted('type')![0]![0] as Typed
    expect(typed).toMatchObject({ begun: '5', label: 'lap', value: 4 })
    typed.take(5.25)
    expect(one.committed()).toEqual([{ lap: 5.25 }])
    const other = held(AroundHandle, around)
    await point(other.grip.element, 'down', { clientX: 0, clientY: 0 })
    await press('4')
    const turned = other.wrapper.emitted('type')![0]![0] as Typed
    expect(turned).toMatchObject({ begun: '4', degrees: true })
  })
})

describe('grips', () => {
  const sizing = { fixed: [50, 40] as [number, number], across: [], down: [], both: [['outline.diameter', 20]] as [string, number][] }

  function grips(more: Partial<kinds.BoxHandle>, guides: Schemas['Guide'][] = []) {
    const wrapper = mount(SizeGrips, {
      props: {
        handle: { ...box, ...more }, values: { outline: { diameter: 20, width: 20, height: 20 }, turn: 0 },
        guides, within: [0, 0, 100, 100], viewport: viewport(), unit: 'mm',
      },
    })
    const pull = async (name: string, dx: number, dy: number) => {
      const grip = wrapper.find(`[data-grip=${name}]`)
      Object.assign(grip.element, { setPointerCapture: () => undefined })
      await point(grip.element, 'down', { clientX: 0, clientY: 0 })
      await point(grip.element, 'move', { clientX: dx, clientY: dy })
      await point(grip.element, 'up')
    }
    return { wrapper, pull, committed: () => wrapper.emitted('commit')?.map((e) => e[0]) }
  }

  it('size in proportion about the fixed place', async () => {
    const { pull, committed } = grips({ sizing })
    // the corner, 10 mm from the middle, pulled out by 5: half as large again
    await pull('foot-right', 10, 10)
    expect(committed()).toEqual([{ 'outline.diameter': 30 }])
  })

  it('size width and height by themselves at the edges, both at the corners', async () => {
    const both = { ...sizing, both: [], across: [['outline.width', 20]] as [string, number][], down: [['outline.height', 20]] as [string, number][] }
    const { pull, committed } = grips({ sizing: both })
    await pull('right', 10, 30)
    await pull('head', 10, -10)
    await pull('head-left', -10, -20)
    expect(committed()).toEqual([
      { 'outline.width': 30 },
      { 'outline.height': 30 },
      { 'outline.width': 30, 'outline.height': 40 },
    ])
  })

  it('bring their edges on to guides, in proportion where it is sized so', async () => {
    const guides = [{ axis: 'x' as const, at: 66, word: 'fold', edge: '' as const }]
    const { wrapper, pull, committed } = grips({ sizing }, guides)
    // the right edge from 60 to 64, 2 mm short of the fold: 10 mm from the middle become 16
    await pull('foot-right', 8, 2)
    expect(committed()).toEqual([{ 'outline.diameter': 32 }])
    const grip = wrapper.find('[data-grip=foot-right]')
    await point(grip.element, 'down', { clientX: 0, clientY: 0 })
    await point(grip.element, 'move', { clientX: 8, clientY: 2 })
    expect(wrapper.find('.snap text').text()).toBe('fold 66')
    await point(grip.element, 'move', { clientX: 8, clientY: 2, altKey: true })
    expect(wrapper.find('.snap').exists()).toBe(false)
    await point(grip.element, 'up')
    expect(committed()!.at(-1)).toEqual({ 'outline.diameter': 28 })
  })

  it('are not there where they would do nothing', () => {
    const corner = { ...sizing, fixed: [40, 30] as [number, number] }
    expect(grips({ sizing: corner }).wrapper.findAll('rect').map((r) => r.attributes('data-grip'))).toEqual(['foot-right'])
    const edge = { ...sizing, fixed: [60, 40] as [number, number] }
    expect(grips({ sizing: edge }).wrapper.findAll('rect').map((r) => r.attributes('data-grip'))).toEqual(['head-left', 'foot-left'])
    expect(grips({}).wrapper.findAll('rect, circle')).toHaveLength(0)
  })

  it('turn about the middle, to the next fifteen degrees where that is near', async () => {
    const { wrapper, committed } = grips({ turn: 0 })
    const knob = wrapper.find('[data-grip=turn]')
    Object.assign(knob.element, { setPointerCapture: () => undefined })
    Object.defineProperty(knob.element, 'ownerSVGElement', { value: { getBoundingClientRect: () => ({ left: 0, top: 0 }) } })
    // the middle lies at 100, 80 px: from above it to the right of it, 2 degrees more
    await point(knob.element, 'down', { clientX: 100, clientY: 30 })
    await point(knob.element, 'move', { clientX: 200, clientY: 83 })
    await point(knob.element, 'up')
    expect(committed()).toEqual([{ turn: 90 }])
  })
})
