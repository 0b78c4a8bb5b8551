/** What the checks say of the card: counted, marked on the drawing, and what of it is worth offering at once. */
import { computed, ref, watch, type Ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Selection } from './useSelection'

type Finding = Schemas['FindingView']

export function useFindings(rest: Readonly<Ref<Pick<Schemas['RestView'], 'findings'> | null>>, { stepId, steps }: Pick<Selection, 'stepId' | 'steps'>) {
  const findings = computed(() => rest.value?.findings ?? [])
  const open = computed(() => findings.value.filter((f) => !f.accepted))
  const errors = computed(() => open.value.filter((f) => f.severity === 'error').length)
  const marked = ref<Finding | null>(null)

  // a finding that is gone needs no mark; one that stays is marked where it is now
  watch(findings, (now) => {
    const before = marked.value
    if (before) marked.value = now.find((f) => f.code === before.code && f.step === before.step) ?? null
  })
  function mark(finding: Finding | null) {
    marked.value = finding
    // places are measured on the finished piece
    if (finding) stepId.value = finding.step || steps.value.at(-1)?.id || null
  }
  /** The first open finding with a mend that is to be offered at once. */
  const offered = computed(() => {
    for (const finding of open.value) {
      const mend = finding.mends.find((m) => m.offered)
      if (mend) return { finding, mend }
    }
    return null
  })

  return { findings, errors, marked, mark, offered }
}
