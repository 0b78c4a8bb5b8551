import { describe, expect, it } from 'vitest'
import { fittedName, formatName, formatTime, parseFormat, pointsOf, wayAt } from './formats'

describe('formats, times, points', () => {
  it('names a size lying as well as upright, and says others as they are', () => {
    expect(formatName([297, 210])).toBe('A4')
    expect(formatName([304.8, 304.8])).toBe('12 × 12 in')
    expect(formatName([200, 200])).toBe('200 × 200 mm')
  })
  it('takes own measures, and says where there are none', () => {
    expect(parseFormat('A3')).toEqual([297, 420])
    expect(parseFormat('210 x 500')).toEqual([210, 500])
    expect(parseFormat('200,5×300 mm')).toEqual([200.5, 300])
    expect(parseFormat('0 x 300')).toBeNull()
    expect(parseFormat('roll 420')).toEqual([420, 0])
    expect(parseFormat('Roll, 61,5 mm wide')).toEqual([61.5, 0])
    expect(parseFormat('roll 0')).toBeNull()
    expect(parseFormat(formatName([420, 0]))).toEqual([420, 0])
    expect(formatName([300, 0])).toBe('roll, 300 mm wide')
    expect(parseFormat('large')).toBeNull()
  })
  it('says seconds as people do', () => {
    expect(formatTime(9.42)).toBe('9.4 s')
    expect(formatTime(200)).toBe('3 min 20 s')
    expect(formatTime(59.8)).toBe('60 s')
  })
  it('says where a line is, and which way it runs', () => {
    expect(wayAt([0, 0, 10, 0, 10, 10], 4)).toEqual({ x: 4, y: 0, turn: 0 })
    expect(wayAt([0, 0, 10, 0, 10, 10], 13)).toEqual({ x: 10, y: 3, turn: 90 })
    expect(wayAt([0, 0, 10, 0], 99)).toEqual({ x: 10, y: 0, turn: 0 })
    expect(wayAt([5, 5, 5, 5], 1)).toEqual({ x: 5, y: 5, turn: 0 })
  })
  it('turns y over where the machine counts from the foot', () => {
    expect(pointsOf([1, 2, 3, 4])).toBe('1,2 3,4')
    expect(pointsOf([1, 2, 3, 4], 10)).toBe('1,8 3,6')
  })
  it('writes a name within its piece, as large as it fits, and cuts it short where it would be too small', () => {
    expect(fittedName('Base', 210)).toMatchObject({ text: 'Base', size: 7 })
    const long = fittedName('Ladder of tides', 58)
    expect(long.text).toBe('Ladder of tides')
    expect(2 * long.half).toBeLessThanOrEqual(58)
    const short = fittedName('Ladder of tides', 18)
    expect(short).toMatchObject({ text: 'Ladder of t…', size: 2.4 })
    expect(2 * short.half).toBeLessThanOrEqual(18)
  })
})
