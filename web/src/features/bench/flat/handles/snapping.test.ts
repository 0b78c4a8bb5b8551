import { describe, expect, it } from 'vitest'
import { byHand, equalMargins, snap, snapBox } from './snapping'

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

  it('means the middle where a middle and an edge are about as near', () => {
    // a thing of 20: its low edge 1.2 from the fold, its middle 1.6 from the centre
    const both = [guides[0]!, { ...guides[1]!, at: 43.6 }]
    expect(snap('x', [42.4, 52.4, 62.4], both, 3)).toMatchObject({ guide: { word: 'centre' } })
    expect(snap('x', [43.3, 53.3, 63.3], [guides[0]!, { ...guides[1]!, at: 43.4 }], 3)).toMatchObject({ guide: { word: 'fold' } })
  })

  it('finds where margins are equal', () => {
    // 12 from the head, 30 from the foot, in a panel of 100 x 80; beyond the left edge
    const at = { left: -5, head: 12, right: 40, foot: 50 }
    const found = equalMargins(at, [0, 0, 100, 80])
    const on = (axis: 'x' | 'y') => found.filter((g) => g.axis === axis).map((g) => g.at)
    expect(on('x')).toEqual([12, 88, 30, 70])
    expect(on('y')).toEqual([60, 20])
  })

  it('measures equal margins where the thing has come to lie', () => {
    // its middle 1 beside the centre at 54, its head 20.6 from the head: 20 from the left once it is there
    const at = { left: 19, right: 87, head: 20.6, foot: 40.6 }
    const [x, y] = snapBox(at, guides.slice(0, 1), [0, 0, 108, 140], 3)
    expect(x).toMatchObject({ by: 1, guide: { word: 'centre' } })
    expect(y?.by).toBeCloseTo(-0.6)
    expect(y?.guide.word).toBe('equal margins')
    // what is there comes first, however near margins are to being equal
    expect(snapBox({ ...at, head: 59, foot: 79 }, guides, [0, 0, 108, 140], 3)[1]).toMatchObject({ by: 1, guide: { word: 'middle' } })
  })

  it('rounds what is dragged freely to a hundredth', () => {
    expect(byHand(12.3456)).toBe(12.35)
    expect(byHand(-0.004)).toBe(-0)
  })
})
