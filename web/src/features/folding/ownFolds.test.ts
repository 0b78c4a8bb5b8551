import { describe, expect, it } from 'vitest'
import type { DesignData } from '@/shared/api/document'
import { ownHandles, ownWidths, withWidths } from './ownFolds'

const panels = [
  { width: 30, direction: 'mountain', order: 1 },
  { width: 50, direction: 'valley', order: 2 },
]
const design = (kind: string, creases = 'usual') =>
  ({ card: { folding: { kind, creases, panels } } }) as unknown as DesignData

describe('own folds', () => {
  it('has a handle at the end of each panel, measured from its beginning', () => {
    const handles = ownHandles(design('own'))
    expect(handles.map((h) => [h.field, h.axis, h.origin, h.at, h.value])).toEqual([
      ['panel-1', 'x', 0, 30, 30],
      ['panel-2', 'x', 30, 80, 50],
    ])
    expect(ownHandles(design('own', 'level'))[0]?.axis).toBe('y')
    expect(ownHandles(design('accordion'))).toEqual([])
  })
  it('sets the widths that are dragged and keeps the rest', () => {
    const next = withWidths(design('own'), { 'panel-2': 44 })
    expect(ownWidths(next)).toEqual({ 'panel-1': 30, 'panel-2': 44 })
    expect(next.card.folding.panels[1]?.direction).toBe('valley')
  })
})
