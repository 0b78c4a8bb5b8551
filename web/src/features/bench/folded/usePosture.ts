/** How the card is held in each pose, and the way from how it is held now. */
import { computed, type Ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { anglesAt, placeOf, route, type Angles, type Posture } from './poses'
import type { Place } from './scene'

export type Pose = 'half' | 'inside' | 'closed' | 'standing' | 'envelope' | 'free'

export function usePosture(space: () => Schemas['SpaceView'], pose: Ref<Pose>, opened: Ref<number>) {
  const half = computed(() => placeOf(space().sequence, space().half))
  let held: Posture = { opened: 0.5, standing: false }
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
    opened.value = posture.opened
    return posture.standing ? (space().stand?.angles ?? []) : anglesAt(space().sequence, posture.opened)
  }

  /** The way from how it is held to a posture, followed as it is asked for. */
  function wayTo(posture: Posture): (share: number) => Angles {
    const from = held
    const way = route(space().sequence, half.value, space().stand?.path ?? [], from, posture)
    return (share) => {
      const at = way(share)
      opened.value = at.opened
      held = share < 1 ? { opened: at.opened, standing: from.standing && posture.standing } : posture
      return at.angles
    }
  }
  return { wanted, hold, wayTo }
}
