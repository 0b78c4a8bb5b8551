/** Aims: taken from a proposal, kept with the design, and reached again when something changes. */
import { ref, watch, type Ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { tell } from '@/shared/messages'
import { t } from '@/shared/words'
import type { Changing } from '../state/useDocument'
import * as edits from './edits'
import { aimed } from './later'

export function useAims(design: Changing, findings: Ref<readonly Schemas['FindingView'][]>) {
  const { document } = design
  /** The key of the figure that is aimed at, while the dialog is open. */
  const aiming = ref<string | null>(null)
  /** Documents that were solved for, or came of going back: they are left as they are. */
  const settled = new WeakSet<DesignData>()

  function take(proposal: Schemas['ProposalView'], keep: boolean) {
    const { aim } = proposal
    design.change((now) => {
      let [next] = edits.applyChanges(now, proposal.changes)
      if (keep) {
        const others = next.aims.filter((a) => a.piece !== aim.piece || a.figure !== aim.figure)
        next = { ...next, aims: [...others, aim] }
      }
      settled.add(next)
      return next
    })
    aiming.value = null
    tell(keep
      ? t('{title} is set, and the aim is kept. Undo takes it back.', { title: proposal.title })
      : t('{title} is set. Undo takes it back.', { title: proposal.title }))
  }
  function forget(index: number) {
    design.change((now) => ({ ...now, aims: now.aims.filter((_, i) => i !== index) }))
  }
  /** Undone or done again: nothing is solved until the next change. */
  function leave() {
    if (document.value) settled.add(document.value)
  }

  watch(findings, (now) => {
    const before = document.value
    if (!before?.aims.length || settled.has(before) || !now.some((f) => f.code === 'aim.missed')) return
    settled.add(before)
    design.later(
      aimed((next) => {
        settled.add(next)
        tell(t('A kept aim was reached again by changing its value. Undo takes it back.'), 'info')
      }),
    )
  })

  return { aiming, take, forget, leave }
}
