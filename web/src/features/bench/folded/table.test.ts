import { Vector3 } from 'three'
import { describe, expect, it } from 'vitest'
import { fallen } from './table'

describe('a shadow', () => {
  it('falls away from the light, as far as its place is high', () => {
    // light at 45 degrees from the front: 30 above the table falls 30 behind
    expect(fallen(new Vector3(10, 50, 5), new Vector3(0, 1, 1), 20)).toEqual([10, -25])
    expect(fallen(new Vector3(10, 20, 5), new Vector3(0, 1, 1), 20)).toEqual([10, 5])
    expect(fallen(new Vector3(0, 40, 0), new Vector3(-0.5, 1, 0), 20)).toEqual([10, 0])
  })
})
