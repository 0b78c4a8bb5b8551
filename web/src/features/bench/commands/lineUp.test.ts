import { describe, expect, it } from 'vitest'
import { asValues, linedUp, movedBy, spreadOut, type Axis, type Edge } from './lineUp'

function thing(step: string, left: number, head: number, width = 10, height = 10, factor = 1) {
  const box = [left, head, left + width, head + height] as [number, number, number, number]
  const across = { field: 'dx', value: 0, factor, least: null }
  return { step, key: step, title: step, box, across, down: { field: 'dy', value: 5, factor: 1, least: null } }
}
type Thing = ReturnType<typeof thing>
const byEdge = (things: Thing[], anchor: Thing, edge: Edge) => asValues(things, linedUp(things, anchor, edge))
const byGaps = (things: Thing[], axis: Axis) => asValues(things, spreadOut(things, axis))

describe('things lined up', () => {
  const [a, b] = [thing('a', 0, 0), thing('b', 30, 7, 20)]
  it('move to the edge of the one that stays', () => {
    expect(byEdge([a, b], a, 'left')).toEqual({ b: { dx: -30 } })
    expect(byEdge([a, b], a, 'right')).toEqual({ b: { dx: -40 } })
    expect(byEdge([a, b], a, 'centre')).toEqual({ b: { dx: -35 } })
    expect(byEdge([a, b], b, 'head')).toEqual({ a: { dy: 12 } })
    expect(byEdge([a, b], a, 'middle')).toEqual({ b: { dy: -2 } })
  })
  it('stay where they are lined up already', () => {
    expect(byEdge([a, thing('c', 50, 0)], a, 'foot')).toEqual({})
  })
  it('follow the sense of their own value', () => {
    expect(byEdge([a, thing('d', 8, 0, 10, 10, -1)], a, 'left')).toEqual({ d: { dx: 8 } })
  })
})

describe('things spread out', () => {
  it('get equal gaps between the first and the last, which stay', () => {
    // 0 to 10, 12 to 22, 90 to 100: 70 are free, 35 each
    const found = byGaps([thing('c', 90, 0), thing('a', 0, 0), thing('b', 12, 0)], 'x')
    expect(found).toEqual({ b: { dx: 33 } })
  })
  it('need three of them', () => {
    expect(byGaps([thing('a', 0, 0), thing('b', 12, 0)], 'x')).toEqual({})
  })
  it('downwards as well', () => {
    const three = [thing('a', 0, 0), thing('b', 0, 11), thing('c', 0, 40)]
    expect(byGaps(three, 'y')).toEqual({ b: { dy: 14 } })
  })
})

describe('a layer on the open card', () => {
  it('is moved by the values that do so as the card is looked at', () => {
    // inside, looked at from behind and turned by a quarter: across runs down, down runs to the left
    const moves = { step: 's', across: 'dx', down: 'dy', dx: 4, dy: 7, x: [0, 1], y: [-1, 0] } as never
    expect(movedBy(moves, 3, 0)).toEqual({ dx: 4, dy: 4 })
    expect(movedBy(moves, 0, 3)).toEqual({ dx: 7, dy: 7 })
  })
})
