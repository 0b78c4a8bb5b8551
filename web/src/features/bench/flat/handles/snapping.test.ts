import { describe, expect, it } from 'vitest'
import { byHand, equalMargins, snap } from './snapping'

const guides = [
  { axis: 'x' as const, at: 54, word: 'centre', edge: '' as const },
  { axis: 'x' as const, at: 108, word: 'fold', edge: '' as const },
  { axis: 'y' as const, at: 70, word: 'middle', edge: '' as const },
]

describe('snapping', () => {
  it('takes the nearest guide of the axis within reach', () => {
    expect(snap('x', [50, 53.5], guides, 1)).toMatchObject({ by: 0.5, guide: { word: 'centre' } })
    expect(snap('x', [107, 54.9], guides, 2)?.by).toBeCloseTo(-0.9)
    expect(snap('y', [54], guides, 2)).toBeNull()
    expect(snap('x', [60], guides, 1)).toBeNull()
  })

  it('keeps a guide for an edge to that edge', () => {
    const low = [{ axis: 'x' as const, at: 20, word: 'equal margins', edge: 'low' as const }]
    expect(snap('x', [10, 15, 20.5], low, 2)).toBeNull()
    expect(snap('x', [19, 24, 29], low, 2)?.by).toBeCloseTo(1)
  })

  it('finds where margins are equal', () => {
    // 12 from the head, 30 from the foot, in a panel of 100 x 80; beyond the left edge
    const at = { left: -5, head: 12, right: 40, foot: 50 }
    const found = equalMargins(at, [0, 0, 100, 80])
    const on = (axis: 'x' | 'y') => found.filter((g) => g.axis === axis).map((g) => g.at)
    expect(on('x')).toEqual([12, 88, 30, 70])
    expect(on('y')).toEqual([60, 20])
  })

  it('rounds what is dragged freely to a hundredth', () => {
    expect(byHand(12.3456)).toBe(12.35)
    expect(byHand(-0.004)).toBe(-0)
  })
})
