import { describe, expect, it } from 'vitest'
import { lanesOf } from './lanes'

describe('figures beside each other', () => {
  it('stay on their line where there is room', () => {
    expect(lanesOf([{ middle: 0, half: 10, room: 30 }, { middle: 20, half: 10, room: 30 }, { middle: 45, half: 10, room: 30 }], 3)).toEqual([0, 0, 0])
  })
  it('go outwards where they would stand over one another, and come back as soon as they can', () => {
    const narrow = [0, 12, 24, 36].map((middle) => ({ middle, half: 10, room: 30 }))
    expect(lanesOf(narrow, 3)).toEqual([0, 1, 0, 1])
    expect(lanesOf([0, 4, 8, 12].map((middle) => ({ middle, half: 10, room: 30 })), 3)).toEqual([0, 1, 2, null])
  })
  it('leave a line that is shorter than they are', () => {
    expect(lanesOf([{ middle: 0, half: 10, room: 40 }, { middle: 40, half: 10, room: 12 }, { middle: 80, half: 10, room: 40 }], 3)).toEqual([0, 1, 0])
  })
})
