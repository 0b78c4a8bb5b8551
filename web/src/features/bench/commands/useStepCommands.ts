/** What can be done with the steps of the piece in hand. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Values } from '@/shared/api/document'
import { useCatalogue, type StepKind } from '@/shared/catalogue'
import { tell } from '@/shared/messages'
import { initialValues } from '@/shared/form/schemaForm'
import { t } from '@/shared/words'
import type { PickedOutline } from '@/features/outlines'
import type { Flat } from '../state/useEvaluation'
import type { Selection } from '../state/useSelection'
import type { Changing } from '../state/useDocument'
import * as edits from './edits'

export type StepAction = 'switch' | 'earlier' | 'later' | 'duplicate' | 'remove'

export function useStepCommands(design: Changing, selection: Selection, flat: { readonly value: Flat | null }) {
  const { document } = design
  const catalogue = useCatalogue()
  const { pieceId, stepId, steps, step } = selection

  function setValues(values: Values) {
    if (document.value && step.value) design.change(edits.setValues(document.value, pieceId.value, step.value.id, values))
  }
  function previewValues(values: Values) {
    if (document.value && step.value) design.preview(edits.setValues(document.value, pieceId.value, step.value.id, values))
  }

  /** A figure for a field, or, with field "ref", an artwork for the step itself. */
  function setOutline(field: string, picked: PickedOutline) {
    if (!document.value || !step.value) return
    const { drawn } = picked
    const next = drawn ? edits.withArtwork(document.value, drawn.key, drawn.artwork) : document.value
    const values = field === 'ref' ? { ref: drawn?.key, layers: [] } : { [field]: picked.values }
    design.change(edits.setValues(next, pieceId.value, step.value.id, values))
  }

  /** Something picked or given back; from then on the picked ones count. */
  function toggle(candidate: number) {
    const pick = flat.value?.handles.find((h) => h.shape === 'pick')
    if (!pick?.candidates[candidate]) return
    const taken = pick.candidates.filter((c, i) => c.taken !== (i === candidate))
    setValues({ [pick.picked_by]: 'picked', [pick.field]: taken.map((c) => c.share) })
  }

  const mirror = () => edits.mirrorAt(steps.value, catalogue.data?.steps ?? [])
  /** What the piece has where a step would come. */
  const having = computed(() => {
    const has = flat.value
    return {
      panels: Boolean(has?.panels.length),
      folds: Boolean(has?.folds.length),
      windows: has?.opened ?? false,
      mirror: mirror() >= 0,
    }
  })

  /** A step after the one in hand, with the values that were said; one for figures goes before the mirror. */
  function addStep(kind: StepKind, said: Values = {}) {
    if (!document.value) return
    const here = kind.starts_with ? 0 : step.value ? selection.index.value + 1 : steps.value.length
    const before = kind.needs === 'figure' && mirror() >= 0 ? mirror() : here
    const at = Math.min(here, before)
    const values = { ...initialValues(kind.form), ...said, kind: kind.kind }
    const [next, key] = edits.addStep(document.value, pieceId.value, at, values)
    design.change(next)
    stepId.value = key
  }

  function moveStep(id: string, to: number) {
    if (document.value) design.change(edits.moveStep(document.value, pieceId.value, id, to))
  }

  function duplicate(id: string) {
    const [next, key] = edits.duplicateStep(document.value!, pieceId.value, id)
    design.change(next)
    stepId.value = key
  }
  function remove(id: string, index: number) {
    const neighbour = steps.value[index - 1] ?? steps.value[index + 1]
    design.change(edits.removeStep(document.value!, pieceId.value, id))
    stepId.value = neighbour?.id ?? null
  }

  function actOn(id: string, action: StepAction) {
    const index = steps.value.findIndex((s) => s.id === id)
    const target = steps.value[index]
    if (!document.value || !target) return
    const acts: Record<StepAction, () => void> = {
      switch: () => design.change(edits.setValues(document.value!, pieceId.value, id, { on: !target.on })),
      earlier: () => moveStep(id, index - 1),
      later: () => moveStep(id, index + 1),
      duplicate: () => duplicate(id),
      remove: () => remove(id, index),
    }
    acts[action]()
  }

  function mend(wish: Schemas['MendView']) {
    if (!document.value) return
    const [next, touched] = edits.applyChanges(document.value, wish.changes)
    design.change(next)
    if (touched) stepId.value = touched
    tell(t('Mended: {title}. Undo takes it back.', { title: wish.title }))
  }
  function takeJoin(join: Schemas['JoinView']) {
    if (!document.value) return
    design.change(edits.applyChanges(document.value, join.changes)[0])
    tell(t('Joined so. Undo takes it back.'))
  }
  function lineUp(moves: edits.Moves) {
    if (document.value) design.change(edits.setAll(document.value, pieceId.value, moves))
  }

  return { having, setValues, previewValues, setOutline, toggle, addStep, moveStep, actOn, mend, takeJoin, lineUp }
}
