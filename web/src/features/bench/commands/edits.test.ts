import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { valueAt } from '@/shared/values'
import * as edits from './edits'

const design = {
  name: 'n',
  pieces: [
    {
      id: 'base',
      name: 'Base',
      paper: 'p',
      steps: [
        { id: 's1', kind: 'blank', on: true },
        { id: 's2', kind: 'window', on: true, dx: 0 },
      ],
    },
  ],
} as object as DesignData
const part: Schemas['PartView'] = {
  number: 1, kept: false, box: [0, 0, 1, 1], piece: '',
  start: { kind: 'part', piece: 'base', step: 's2', number: 1 },
}
const keys = (d: DesignData) => d.pieces[0]!.steps.map((s) => s.id)

describe('edits make new documents', () => {
  it('sets values on one step and leaves the old document as it was', () => {
    const next = edits.setValues(design, 'base', 's2', { dx: 3 })
    expect(next.pieces[0]!.steps[1]).toMatchObject({ id: 's2', dx: 3 })
    expect(valueAt(design.pieces[0]!.steps[1], 'dx')).toBe(0)
    expect(next.pieces[0]!.steps[0]).toBe(design.pieces[0]!.steps[0])
  })

  it('sets values of a figure by their names', () => {
    const drawn = edits.setValues(design, 'base', 's2', { outline: { kind: 'circle', diameter: 20 } })
    const next = edits.setValues(drawn, 'base', 's2', { 'outline.diameter': 25, dx: 1 })
    expect(next.pieces[0]!.steps[1]).toMatchObject({ outline: { kind: 'circle', diameter: 25 }, dx: 1 })
    expect(valueAt(next.pieces[0]!.steps[1]!, 'outline.diameter')).toBe(25)
    expect(valueAt(next.pieces[0]!.steps[0]!, 'outline.diameter')).toBeUndefined()
  })

  it('accepts a finding once, and lets it count again', () => {
    const finding = { code: 'hinge.short', piece: 'base', step: '', severity: 'warning' as const }
    const first = edits.acceptFinding({ ...design, accepted: [] }, finding, 'light')
    const again = edits.acceptFinding(first, { ...finding, severity: 'error' }, 'very light')
    expect(again.accepted).toEqual([{ ...finding, severity: 'error', reason: 'very light' }])
    expect(edits.reopenFinding(again, { ...finding, step: 's1' }).accepted).toHaveLength(1)
    expect(edits.reopenFinding(again, finding).accepted).toEqual([])
  })

  it('makes a piece of a part', () => {
    const [once, first] = edits.addPart(design, 'base', part)
    const [twice, second] = edits.addPart(once, 'base', part)
    expect(twice.pieces.map((p) => p.name)).toEqual(['Base', 'Base, part 1', 'Base, part 1 (2)'])
    expect(new Set(['base', first, second]).size).toBe(3)
    expect(twice.pieces[1]).toMatchObject({
      paper: 'p',
      steps: [{ kind: 'part', piece: 'base', step: 's2', number: 1, on: true }],
    })
  })

  it('adds with a fresh key, duplicates behind the original, removes', () => {
    const [added, key] = edits.addStep(design, 'base', 1, { kind: 'weld' })
    expect(keys(added)).toEqual(['s1', key, 's2'])
    expect(key).toBe('s3')
    const [twice, copy] = edits.duplicateStep(added, 'base', 's2')
    expect(keys(twice)).toEqual(['s1', 's3', 's2', copy])
    expect(new Set(keys(twice)).size).toBe(4)
    expect(keys(edits.removeStep(twice, 'base', 's1'))).toEqual(['s3', 's2', copy])
  })

  it('moves within bounds and not beyond', () => {
    expect(keys(edits.moveStep(design, 'base', 's2', 0))).toEqual(['s2', 's1'])
    expect(edits.moveStep(design, 'base', 's2', 2)).toBe(design)
    expect(edits.moveStep(design, 'base', 's1', -1)).toBe(design)
  })

  it('applies a mend that sets and one that adds before a step', () => {
    const [next, touched] = edits.applyChanges(design, [
      { op: 'set', piece: 'base', step: 's2', values: { dx: 6 } },
      { op: 'add', piece: 'base', step: 's2', values: { kind: 'fill' } },
    ])
    expect(keys(next)).toEqual(['s1', touched, 's2'])
    expect(valueAt(next.pieces[0]!.steps[2], 'dx')).toBe(6)
    const [last] = edits.applyChanges(design, [{ op: 'add', piece: 'base', step: '', values: { kind: 'fill' } }])
    expect(last.pieces[0]!.steps.at(-1)!.kind).toBe('fill')
  })

  it('sets the start of a piece anew, in its place or before all steps', () => {
    const starts = (kind: string) => kind === 'blank' || kind === 'artwork'
    const [next, key] = edits.setStart(design, 'base', { kind: 'artwork', ref: 'a1' }, starts)
    expect(key).toBe('s1')
    expect(next.pieces[0]!.steps[0]).toEqual({ kind: 'artwork', ref: 'a1', id: 's1', on: true })
    const bare = edits.removeStep(design, 'base', 's1')
    const [put, first] = edits.setStart(bare, 'base', { kind: 'artwork' }, starts)
    expect(keys(put)).toEqual([first, 's2'])
  })

  it('puts a newer artwork in place of an earlier one wherever steps name it', () => {
    const old = { name: 'Sail', scale: 1, layers: [] }
    const withOld = edits.withArtwork({ ...design, artworks: { keep: old } }, 'a1', old)
    const [started] = edits.addStep(withOld, 'base', 0, { kind: 'artwork', ref: 'a1', layers: [0] })
    const [both] = edits.addStep(started, 'base', 2, { kind: 'weld', outline: { kind: 'drawn', ref: 'a1' } })
    const next = edits.replaceArtwork(both, 'a1', 'a2', { ...old, scale: 2 })
    expect(Object.keys(next.artworks).sort()).toEqual(['a2', 'keep'])
    expect(next.artworks.a2!.scale).toBe(2)
    expect(next.pieces[0]!.steps[0]).toMatchObject({ ref: 'a2', layers: [0] })
    expect(next.pieces[0]!.steps.find((s) => s.kind === 'weld')).toMatchObject({ outline: { ref: 'a2' } })
    expect(both.artworks.a1).toBeDefined()
  })
})
