import { describe, expect, it } from 'vitest'
import { linedUp, spreadOut, type Thing } from './lineUp'

function thing(step: string, left: number, head: number, width = 10, height = 10, factor = 1): Thing {
  const box = [left, head, left + width, head + height] as [number, number, number, number]
  const across = { field: 'dx', value: 0, factor, least: null }
  return { step, box, across, down: { field: 'dy', value: 5, factor: 1, least: null } }
}

describe('things lined up', () => {
  const [a, b] = [thing('a', 0, 0), thing('b', 30, 7, 20)]
  it('move to the edge of the one that stays', () => {
    expect(linedUp([a, b], a, 'left')).toEqual({ b: { dx: -30 } })
    expect(linedUp([a, b], a, 'right')).toEqual({ b: { dx: -40 } })
    expect(linedUp([a, b], a, 'centre')).toEqual({ b: { dx: -35 } })
    expect(linedUp([a, b], b, 'head')).toEqual({ a: { dy: 12 } })
    expect(linedUp([a, b], a, 'middle')).toEqual({ b: { dy: -2 } })
  })
  it('stay where they are lined up already', () => {
    expect(linedUp([a, thing('c', 50, 0)], a, 'foot')).toEqual({})
  })
  it('follow the sense of their own value', () => {
    expect(linedUp([a, thing('d', 8, 0, 10, 10, -1)], a, 'left')).toEqual({ d: { dx: 8 } })
  })
})

describe('things spread out', () => {
  it('get equal gaps between the first and the last, which stay', () => {
    // 0 to 10, 12 to 22, 90 to 100: 70 are free, 35 each
    const found = spreadOut([thing('c', 90, 0), thing('a', 0, 0), thing('b', 12, 0)], 'x')
    expect(found).toEqual({ b: { dx: 33 } })
  })
  it('need three of them', () => {
    expect(spreadOut([thing('a', 0, 0), thing('b', 12, 0)], 'x')).toEqual({})
  })
  it('downwards as well', () => {
    const three = [thing('a', 0, 0), thing('b', 0, 11), thing('c', 0, 40)]
    expect(spreadOut(three, 'y')).toEqual({ b: { dy: 14 } })
  })
})
