import { describe, expect, it } from 'vitest'
import { aside } from './useClearLabels'

const at = (left: number, top: number, width = 40, height = 10) => ({ left, top, right: left + width, bottom: top + height })

describe('labels that yield', () => {
  it('stay where nothing is', () => {
    expect(aside(at(0, 0), [at(100, 0), at(0, 13)])).toEqual([0, 0])
  })
  it('go to the nearest free place: a line up or down before a width to the side', () => {
    expect(aside(at(0, 0), [at(10, 2)])).toEqual([0, -12])
    expect(aside(at(0, 0), [at(10, 2), at(0, -16)])).toEqual([0, 24])
    expect(aside(at(0, 0), [at(-1, -40, 42, 90)])).toEqual([-44, 0])
  })
  it('find no place where all is taken', () => {
    expect(aside(at(0, 0), [at(-200, -200, 400, 400)])).toBeNull()
  })
})
