/** Placed things lined up or spread out: for each step the values that move it there. */
import type { Schemas } from '@/shared/api/client'

export type Thing = Omit<Schemas['PlacedThing'], 'title'>
export type Edge = 'left' | 'centre' | 'right' | 'head' | 'middle' | 'foot'
type Moves = Record<string, Record<string, number>>

const LOW = { x: 0, y: 1 } as const
const low = (t: Thing, axis: 'x' | 'y') => t.box[LOW[axis]]
const high = (t: Thing, axis: 'x' | 'y') => t.box[LOW[axis] + 2]!

function moved(t: Thing, axis: 'x' | 'y', by: number): Record<string, number> {
  const { field, value, factor } = axis === 'x' ? t.across : t.down
  return { [field]: Math.round((value + by * factor) * 1e6) / 1e6 }
}

function placeOf(t: Thing, edge: Edge): number {
  const axis = axisOf(edge)
  if (edge === 'left' || edge === 'head') return low(t, axis)
  if (edge === 'right' || edge === 'foot') return high(t, axis)
  return (low(t, axis) + high(t, axis)) / 2
}
const axisOf = (edge: Edge) => (['left', 'centre', 'right'].includes(edge) ? 'x' : 'y')

/** All but the anchor moved so that their edges lie where its edge is. */
export function linedUp(things: readonly Thing[], anchor: Thing, edge: Edge): Moves {
  const found: Moves = {}
  for (const t of things) {
    const by = placeOf(anchor, edge) - placeOf(t, edge)
    if (t.step !== anchor.step && Math.abs(by) > 1e-9) found[t.step] = moved(t, axisOf(edge), by)
  }
  return found
}

/** Those between the first and the last moved so that all gaps are the same; gaps may be negative. */
export function spreadOut(things: readonly Thing[], axis: 'x' | 'y'): Moves {
  const order = [...things].sort((a, b) => low(a, axis) + high(a, axis) - low(b, axis) - high(b, axis))
  const [first, last] = [order[0], order.at(-1)]
  if (!first || !last || order.length < 3) return {}
  const filled = order.reduce((sum, t) => sum + high(t, axis) - low(t, axis), 0)
  const gap = (high(last, axis) - low(first, axis) - filled) / (order.length - 1)
  const found: Moves = {}
  let at = low(first, axis)
  for (const t of order) {
    const by = at - low(t, axis)
    if (t !== first && t !== last && Math.abs(by) > 1e-9) found[t.step] = moved(t, axis, by)
    at += high(t, axis) - low(t, axis) + gap
  }
  return found
}
