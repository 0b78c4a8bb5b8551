import { describe, expect, it } from 'vitest'
import { covered } from './useFreePlace'

const spot = { left: 0, top: 0, width: 80, height: 50 }
const rect = (left: number, top: number, width: number, height: number) =>
  ({ left, top, right: left + width, bottom: top + height, width, height }) as DOMRect

describe('what lies over the flat view', () => {
  it('counts the paper that it covers', () => {
    expect(covered(spot, () => false, [], [])).toBe(0)
    expect(covered(spot, (x) => x < 40, [], [])).toBe(20)
    expect(covered(spot, () => true, [], [])).toBe(40)
  })
  it('counts figures, and handles more', () => {
    const beside = rect(81, 0, 10, 10)
    expect(covered(spot, () => false, [rect(70, 40, 30, 30), beside], [])).toBe(2)
    expect(covered(spot, () => false, [beside], [rect(-5, -5, 10, 10)])).toBe(6)
  })
})
