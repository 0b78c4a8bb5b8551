import { describe, expect, it } from 'vitest'
import { sidesOf } from './sides'

describe('sides of panels', () => {
  it('lie on the fold where there is no spine', () => {
    expect(sidesOf([{ at: 210, apart: 0 }, { at: 105, apart: 0 }])).toEqual([105, 210])
  })
  it('lie on both edges of a spine: a card of 105, with 4 between its panels', () => {
    expect(sidesOf([{ at: 107, apart: 4 }])).toEqual([105, 109])
  })
})
