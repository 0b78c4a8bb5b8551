/** Snapping to guides: which of several places is nearest to a guide of its axis. */
import type { Schemas } from '@/shared/api/client'
import { t } from '@/shared/words'

type Guide = Schemas['Guide']
export interface Snap {
  /** How far to move so that the place lies on the guide, in mm. */
  by: number
  guide: Guide
}

/** How much nearer a guide counts for a thing's middle than for its edges. */
const MIDDLE = 0.6

/**
 * The smallest move within `reach` mm that brings one of the places on to a guide: a line's one
 * place, or a thing's low edge, middle and high edge, of which a guide may be for one alone. Where
 * a middle and an edge are about as near, it is the middle that was meant.
 */
export function snap(
  axis: 'x' | 'y',
  places: readonly number[],
  guides: readonly Guide[],
  reach: number,
): Snap | null {
  let best: Snap | null = null
  let least = Infinity
  for (const guide of guides) {
    if (guide.axis !== axis) continue
    const edge = ['low', 'middle', 'high'].indexOf(guide.edge ?? '')
    places.forEach((place, i) => {
      if (edge >= 0 && places.length === 3 && i !== edge) return
      const by = guide.at - place
      const away = Math.abs(by) * (places.length === 3 && i === 1 ? MIDDLE : 1)
      if (Math.abs(by) > reach || away >= least) return
      best = { by, guide }
      least = away
    })
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
  const word = t('equal margins')
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

/**
 * How a thing snaps across and down. What is there comes first: margins are equal somewhere near at every
 * place, and are measured where the thing has come to lie.
 */
export function snapBox(
  at: Readonly<{ left: number; head: number; right: number; foot: number }>,
  guides: readonly Guide[],
  within: readonly number[],
  reach: number,
): [Snap | null, Snap | null] {
  const across = (b: typeof at) => [b.left, (b.left + b.right) / 2, b.right]
  const down = (b: typeof at) => [b.head, (b.head + b.foot) / 2, b.foot]
  let x = snap('x', across(at), guides, reach)
  let y = snap('y', down(at), guides, reach)
  const lies = () => ({ left: at.left + (x?.by ?? 0), right: at.right + (x?.by ?? 0), head: at.head + (y?.by ?? 0), foot: at.foot + (y?.by ?? 0) })
  x ??= snap('x', across(at), equalMargins(lies(), within), reach / 2)
  y ??= snap('y', down(at), equalMargins(lies(), within), reach / 2)
  return [x, y]
}

/** A length dragged by hand, to a hundredth of a mm; snapped ones keep all their digits. */
export function byHand(value: number): number {
  return Math.round(value * 100) / 100
}
