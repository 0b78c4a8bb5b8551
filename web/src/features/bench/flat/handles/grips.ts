/** Where a thing in a box can be taken hold of to be sized about a fixed place. */
import type { Schemas } from '@/shared/api/client'
import type { Bounds } from '../useViewport'

export interface Grip {
  name: string
  x: number
  y: number
  /** Which ways it sizes. */
  across: boolean
  down: boolean
}

/** Grips lie away from the fixed place in the way in which they size: others would do nothing. */
export function gripsOf(box: Bounds, sizing: Schemas['SizingView']): Grip[] {
  const [fx, fy] = sizing.fixed
  const [cx, cy] = [(box.left + box.right) / 2, (box.head + box.foot) / 2]
  const away = (at: number, fixed: number, size: number) => Math.abs(at - fixed) > 0.4 * size
  const xs = (['left', 'right'] as const).filter((side) => away(box[side], fx, box.right - box.left))
  const ys = (['head', 'foot'] as const).filter((side) => away(box[side], fy, box.foot - box.head))
  const corners = xs.flatMap((sx) =>
    ys.map((sy) => ({ name: `${sy}-${sx}`, x: box[sx], y: box[sy], across: true, down: true })),
  )
  const sides = xs.map((name): Grip => ({ name, x: box[name], y: cy, across: true, down: false }))
  const ends = ys.map((name): Grip => ({ name, x: cx, y: box[name], across: false, down: true }))
  const found = [...corners, ...(sizing.across.length ? sides : []), ...(sizing.down.length ? ends : [])]
  // set by its middle at one edge: nothing lies away both ways
  if (found.length) return found
  return sides.length ? sides : ends
}
