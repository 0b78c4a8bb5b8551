import { describe, expect, it } from 'vitest'
import { anglesAt, between, placeOf, route, turnOne } from './poses'

const roll = [
  [0, 0],
  [120, 0],
  [120, 70],
  [180, 70],
  [180, 180],
]
const HALF = 0.5
const stand = [
  [120, 70],
  [120, 120],
]

describe('one fold by itself', () => {
  // a gatefold: both doors in one stage; a roll of three: the inner one before the outer
  const doors = [[0, 0], [-180, 180]]
  const roll = [[0, 0], [180, 0], [180, 180]]

  it('is one door alone', () => {
    expect(turnOne(doors, [0, 0], 1, [])).toEqual([[0, 0], [0, 180]])
    expect(turnOne(doors, [-180, 180], 0, [])).toEqual([[-180, 180], [0, 180]])
    expect(turnOne(doors, [-40, 180], 0, [])).toEqual([[-40, 180], [-180, 180]])
    // folded one after the other, but beside each other when they are shut
    expect(turnOne([[0, 0], [-180, 0], [-180, 180]], [-180, 180], 0, [])).toEqual([[-180, 180], [0, 180]])
  })
  it('has what must be shut before it shut, and what must be open before it open', () => {
    expect(turnOne(roll, [0, 0], 1, [0])).toEqual([[0, 0], [180, 0], [180, 180]])
    expect(turnOne(roll, [180, 180], 0, [1])).toEqual([[180, 180], [180, 0], [0, 0]])
    expect(turnOne(roll, [180, 180], 1, [0])).toEqual([[180, 180], [180, 0]])
  })
})

describe('poses', () => {
  it('folds one stage after the other', () => {
    expect(anglesAt(roll, 1)).toEqual([0, 0])
    expect(anglesAt(roll, 0.75)).toEqual([120, 0])
    expect(anglesAt(roll, 0.625)).toEqual([120, 35])
    expect(anglesAt(roll, 0.25)).toEqual([180, 70])
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
  it('tells where a pose is on the slider', () => {
    expect(placeOf(roll, [0, 0])).toBe(1)
    expect(placeOf(roll, [180, 180])).toBe(0)
    expect(placeOf(roll, [120, 70])).toBe(HALF)
    expect(placeOf(roll, [10, 10])).toBe(1)
    expect(placeOf([[]], [])).toBe(1)
  })
})

describe('the way between two postures', () => {
  const to = (from: number | 'stand', end: number | 'stand', share: number) => {
    const posture = (at: number | 'stand') => ({ opened: at === 'stand' ? HALF : at, standing: at === 'stand' })
    return route(roll, HALF, stand, posture(from), posture(end))(share)
  }
  it('follows the folding', () => {
    expect(to(HALF, 0, 0.5)).toEqual({ angles: [180, 70], opened: 0.25 })
    expect(to(0, 1, 0.75).angles).toEqual([120, 0])
  })
  it('stands up from half open, and goes back by it', () => {
    expect(to(0, 'stand', 0.5).angles).toEqual([120, 70])
    expect(to(0, 'stand', 1)).toEqual({ angles: [120, 120], opened: HALF })
    expect(to('stand', 0, 0.5).angles).toEqual([120, 70])
    expect(to('stand', 0, 0).angles).toEqual([120, 120])
    expect(to('stand', 0, 1)).toEqual({ angles: [180, 180], opened: 0 })
  })
  it('stays where it is', () => {
    expect(to(0.3, 0.3, 0.4).opened).toBe(0.3)
    expect(to('stand', 'stand', 0).angles).toEqual([120, 120])
  })
})
