import { describe, expect, it } from 'vitest'
import { anglesAt, between, openness } from './poses'

const roll = [
  [0, 0],
  [180, 0],
  [180, 180],
]

describe('poses', () => {
  it('folds one stage after the other', () => {
    expect(anglesAt(roll, 1)).toEqual([0, 0])
    expect(anglesAt(roll, 0.75)).toEqual([90, 0])
    expect(anglesAt(roll, 0.5)).toEqual([180, 0])
    expect(anglesAt(roll, 0.25)).toEqual([180, 90])
    expect(anglesAt(roll, 0)).toEqual([180, 180])
  })
  it('stays within its ends and does without folds', () => {
    expect(anglesAt(roll, 2)).toEqual([0, 0])
    expect(anglesAt(roll, -1)).toEqual([180, 180])
    expect(anglesAt([[]], 0.3)).toEqual([])
    expect(anglesAt([], 0.3)).toEqual([])
  })
  it('runs evenly between two poses', () => {
    expect(between([0, 100], [180, 140], 0.25)).toEqual([45, 110])
  })
  it('tells how far a pose is opened', () => {
    expect(openness(roll, [0, 0])).toBe(1)
    expect(openness(roll, [180, 180])).toBe(0)
    expect(openness(roll, [180, 90])).toBeCloseTo(0.25)
    expect(openness([[]], [])).toBe(1)
  })
})
