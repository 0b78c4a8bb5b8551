import { describe, expect, it } from 'vitest'
import { foldOf } from './pointing'

describe('the fold of a face that is pointed at', () => {
  const door = (parent: number, fold: number) => ({ parent, hinge: { fold } })
  const root = { parent: null, hinge: null }

  it('is the one that it hangs on', () => {
    expect(foldOf([root, door(0, 0), door(0, 1)], 2)).toBe(1)
    expect(foldOf([root, door(0, 0), door(1, 1)], 1)).toBe(0)
  })
  it('is that of the only face on it where it hangs on none', () => {
    expect(foldOf([root, door(0, 0), door(1, 1)], 0)).toBe(0)
    expect(foldOf([root, door(0, 0), door(0, 1)], 0)).toBeNull()
    expect(foldOf([root], -1)).toBeNull()
  })
})
