/** How the card is held in each pose, and the way from how it is held now. */
import { computed, type Ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { along, anglesAt, between, placeOf, route, turnOne, type Angles, type Posture } from './poses'
import type { Place } from './scene'

export type Pose = 'half' | 'inside' | 'closed' | 'standing' | 'envelope' | 'free'

/** The share of a way that is taken by what was turned by itself. */
const BACK = 0.35

export function usePosture(space: () => Schemas['SpaceView'], pose: Ref<Pose>, opened: Ref<number>) {
  const half = computed(() => placeOf(space().sequence, space().half))
  let held: Posture = { opened: 0.5, standing: false }
  /** Where folds were turned one by one: their angles, which are no place of the sequence. */
  let own: Angles | null = null
  const lying = (at: number): Posture => ({ opened: at, standing: false })

  /** How it is held in the pose in hand, and where. */
  function wanted(): { posture: Posture; place: Place } {
    if (pose.value === 'closed') return { posture: lying(0), place: 'hand' }
    if (pose.value === 'standing' && space().stand) return { posture: { opened: half.value, standing: true }, place: 'table' }
    if (pose.value === 'envelope' && space().envelope) return { posture: lying(0), place: 'envelope' }
    if (pose.value === 'free') return { posture: lying(opened.value), place: 'hand' }
    return { posture: lying(half.value), place: 'hand' }
  }

  /** Takes a posture at once; its angles. */
  function hold(posture: Posture): Angles {
    held = posture
    own = null
    opened.value = posture.opened
    return anglesOf(posture)
  }

  /** The way from how it is held to a posture, followed as it is asked for. */
  function wayTo(posture: Posture): (share: number) => Angles {
    const [from, before] = [held, own]
    own = null
    const way = route(space().sequence, half.value, space().stand?.path ?? [], from, posture)
    return (whole) => {
      // back to the order of folding first
      if (before && whole < BACK) return between(before, anglesOf(from), whole / BACK)
      const share = before ? (whole - BACK) / (1 - BACK) : whole
      const at = way(share)
      opened.value = at.opened
      held = share < 1 ? { opened: at.opened, standing: from.standing && posture.standing } : posture
      return at.angles
    }
  }
  const anglesOf = (posture: Posture) => (posture.standing ? (space().stand?.angles ?? []) : anglesAt(space().sequence, posture.opened))

  /** The way on which one fold is opened or shut by itself, from how the card is held. */
  function wayOf(fold: number): (share: number) => Angles {
    const path = turnOne(space().sequence, own ?? anglesOf(held), fold, space().over[fold] ?? [])
    const end = path.at(-1)!
    const away = (angles: Angles) => angles.reduce((sum, a, i) => sum + Math.abs(a - (end[i] ?? 0)), 0)
    const places = space().sequence.map((angles, stage) => ({ stage, off: away(angles) }))
    const nearest = places.reduce((a, b) => (b.off < a.off ? b : a), { stage: 0, off: Infinity })
    held = lying(1 - nearest.stage / Math.max(1, places.length - 1))
    own = nearest.off > 1e-6 ? end : null
    opened.value = held.opened
    return (share) => along(path, share)
  }
  /** After an edit: folds that were turned one by one stay so, as long as there are as many. */
  function again(posture: Posture): Angles {
    const kept = pose.value === 'free' && own?.length === space().folds.length ? own : null
    const angles = hold(posture)
    own = kept
    return kept ?? angles
  }
  return { wanted, hold, wayTo, wayOf, again }
}
