import { describe, expect, it } from 'vitest'
import type { DesignData } from '@/shared/api/document'
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
} as unknown as DesignData
const keys = (d: DesignData) => d.pieces[0]!.steps.map((s) => s.id)

describe('edits make new documents', () => {
  it('sets values on one step and leaves the old document as it was', () => {
    const next = edits.setValues(design, 'base', 's2', { dx: 3 })
    expect(next.pieces[0]!.steps[1]).toMatchObject({ id: 's2', dx: 3 })
    expect(design.pieces[0]!.steps[1]!.dx).toBe(0)
    expect(next.pieces[0]!.steps[0]).toBe(design.pieces[0]!.steps[0])
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
    expect(next.pieces[0]!.steps[2]!.dx).toBe(6)
    const [last] = edits.applyChanges(design, [{ op: 'add', piece: 'base', step: '', values: { kind: 'fill' } }])
    expect(last.pieces[0]!.steps.at(-1)!.kind).toBe('fill')
  })
})
