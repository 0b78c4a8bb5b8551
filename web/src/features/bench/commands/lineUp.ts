/** Things lined up or spread out: by how much each is to be moved, and the values that move it there. */
import type { Schemas } from '@/shared/api/client'

/** A thing with its box: left, head, right, foot. */
export interface Boxed {
  readonly key: string
  readonly box: readonly number[]
}
export type Edge = 'left' | 'centre' | 'right' | 'head' | 'middle' | 'foot'
export type Axis = 'x' | 'y'
/** For each thing, by its key, how far it is moved to the right and down. */
export type Shifts = Readonly<Record<string, readonly [number, number]>>

const LOW = { x: 0, y: 1 } as const
const low = (t: Boxed, axis: Axis) => t.box[LOW[axis]]!
const high = (t: Boxed, axis: Axis) => t.box[LOW[axis] + 2]!
const along = (axis: Axis, by: number): [number, number] => (axis === 'x' ? [by, 0] : [0, by])

function placeOf(t: Boxed, edge: Edge): number {
  const axis = axisOf(edge)
  if (edge === 'left' || edge === 'head') return low(t, axis)
  if (edge === 'right' || edge === 'foot') return high(t, axis)
  return (low(t, axis) + high(t, axis)) / 2
}
const axisOf = (edge: Edge): Axis => (['left', 'centre', 'right'].includes(edge) ? 'x' : 'y')

/** All but the anchor moved so that their edges lie where its edge is. */
export function linedUp(things: readonly Boxed[], anchor: Boxed, edge: Edge): Shifts {
  const found: Record<string, [number, number]> = {}
  for (const t of things) {
    const by = placeOf(anchor, edge) - placeOf(t, edge)
    if (t.key !== anchor.key && Math.abs(by) > 1e-9) found[t.key] = along(axisOf(edge), by)
  }
  return found
}

/** Those between the first and the last moved so that all gaps are the same; gaps may be negative. */
export function spreadOut(things: readonly Boxed[], axis: Axis): Shifts {
  const order = [...things].sort((a, b) => low(a, axis) + high(a, axis) - low(b, axis) - high(b, axis))
  const [first, last] = [order[0], order.at(-1)]
  if (!first || !last || order.length < 3) return {}
  const filled = order.reduce((sum, t) => sum + high(t, axis) - low(t, axis), 0)
  const gap = (high(last, axis) - low(first, axis) - filled) / (order.length - 1)
  const found: Record<string, [number, number]> = {}
  let at = low(first, axis)
  for (const t of order) {
    const by = at - low(t, axis)
    if (t !== first && t !== last && Math.abs(by) > 1e-9) found[t.key] = along(axis, by)
    at += high(t, axis) - low(t, axis) + gap
  }
  return found
}

const exact = (v: number) => Math.round(v * 1e6) / 1e6

/** The values of steps of one piece that move their things so. */
export function asValues(things: readonly Schemas['PlacedThing'][], shifts: Shifts): Record<string, Record<string, number>> {
  const found: Record<string, Record<string, number>> = {}
  for (const { step, across, down } of things) {
    const [x, y] = shifts[step] ?? [0, 0]
    if (x) found[step] = { [across.field]: exact(across.value + x * across.factor) }
    if (y) found[step] = { ...found[step], [down.field]: exact(down.value + y * down.factor) }
  }
  return found
}

/** The values with which a layer lies so far to the right and down of where it was, as the card is looked at. */
export function movedBy(moves: Schemas['MovesView'], right: number, down: number, round: (v: number) => number = exact): Record<string, number> {
  const [ax, ay] = moves.x
  const [bx, by] = moves.y
  const det = ax * by - ay * bx
  return {
    [moves.across]: round(moves.dx + (right * by - down * bx) / det),
    [moves.down]: round(moves.dy + (down * ax - right * ay) / det),
  }
}
