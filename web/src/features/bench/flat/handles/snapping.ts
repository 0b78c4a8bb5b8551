/** Snapping to guides: which of several places is nearest to a guide of its axis. */
import type { Schemas } from '@/shared/api/client'

type Guide = Schemas['Guide']
export interface Snap {
  /** How far to move so that the place lies on the guide, in mm. */
  by: number
  guide: Guide
}

/**
 * The smallest move within `reach` mm that brings one of the places on to a guide: a line's one
 * place, or a thing's low edge, middle and high edge, of which a guide may be for one alone.
 */
export function snap(
  axis: 'x' | 'y',
  places: readonly number[],
  guides: readonly Guide[],
  reach: number,
): Snap | null {
  let best: Snap | null = null
  for (const guide of guides) {
    if (guide.axis !== axis) continue
    const edge = ['low', 'middle', 'high'].indexOf(guide.edge ?? '')
    for (const place of edge < 0 || places.length < 3 ? places : [places[edge]!]) {
      const by = guide.at - place
      if (Math.abs(by) <= reach && (!best || Math.abs(by) < Math.abs(best.by))) best = { by, guide }
    }
  }
  return best
}

/**
 * Places at which a thing is as far from one edge of what it is on as it is from another now:
 * its left or right edge from the side, as its head or foot from the end, and the other way round.
 */
export function equalMargins(
  at: Readonly<{ left: number; head: number; right: number; foot: number }>,
  within: readonly number[],
): Guide[] {
  const [left, head, right, foot] = within as [number, number, number, number]
  const word = 'equal margins'
  const low = (axis: 'x' | 'y', at_: number): Guide => ({ axis, at: at_, word, edge: 'low' })
  const high = (axis: 'x' | 'y', at_: number): Guide => ({ axis, at: at_, word, edge: 'high' })
  const found: Guide[] = []
  for (const gap of [at.head - head, foot - at.foot]) {
    if (gap > 0) found.push(low('x', left + gap), high('x', right - gap))
  }
  for (const gap of [at.left - left, right - at.right]) {
    if (gap > 0) found.push(low('y', head + gap), high('y', foot - gap))
  }
  return found
}

/** A length dragged by hand, to a hundredth of a mm; snapped ones keep all their digits. */
export function byHand(value: number): number {
  return Math.round(value * 100) / 100
}
