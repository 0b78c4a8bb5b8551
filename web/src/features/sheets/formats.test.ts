import { describe, expect, it } from 'vitest'
import { formatName, formatTime, parseFormat, pointsOf } from './formats'

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
    expect(parseFormat('large')).toBeNull()
  })
  it('says seconds as people do', () => {
    expect(formatTime(9.42)).toBe('9.4 s')
    expect(formatTime(200)).toBe('3 min 20 s')
    expect(formatTime(59.8)).toBe('60 s')
  })
  it('turns y over where the machine counts from the foot', () => {
    expect(pointsOf([1, 2, 3, 4])).toBe('1,2 3,4')
    expect(pointsOf([1, 2, 3, 4], 10)).toBe('1,8 3,6')
  })
})
