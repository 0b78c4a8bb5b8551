/** What of a document is looked at: a piece, and of it the step in hand, null for the card's size. */
import { computed, ref, watch, type Ref } from 'vue'
import type { DesignData, Unit } from '@/shared/api/document'
import { pieceOf } from '../commands/edits'

export function useSelection(document: Readonly<Ref<DesignData | null>>) {
  const pieceId = ref('base')
  const stepId = ref<string | null>(null)
  const piece = computed(() => (document.value ? pieceOf(document.value, pieceId.value) : null))
  const steps = computed(() => piece.value?.steps ?? [])
  const step = computed(() => steps.value.find((s) => s.id === stepId.value) ?? null)
  const index = computed(() => (step.value ? steps.value.indexOf(step.value) : -1))
  const unit = computed<Unit>(() => document.value?.units ?? 'mm')
  const paper = computed(() => document.value?.papers.find((p) => p.id === piece.value?.paper))
  /** Whether the piece is seen finished, of which the rest is measured. */
  const finished = computed(() => !step.value || steps.value.filter((s) => s.on).at(-1)?.id === stepId.value)

  /** Another piece, with its last step in hand. */
  function goTo(id: string) {
    pieceId.value = id
    stepId.value = steps.value.at(-1)?.id ?? null
  }

  watch(steps, (now) => {
    if (stepId.value && !now.some((s) => s.id === stepId.value)) stepId.value = now.at(-1)?.id ?? null
  })

  return { pieceId, stepId, piece, steps, step, index, unit, paper, finished, goTo }
}
export type Selection = ReturnType<typeof useSelection>
