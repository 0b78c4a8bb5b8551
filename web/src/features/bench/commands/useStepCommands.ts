/** What can be done with the steps of the piece in hand. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { DesignData, Values } from '@/shared/api/document'
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
  const catalogue = useCatalogue()
  const { pieceId, stepId, steps, step } = selection

  /** The keys of the piece and the step in hand. */
  const inHand = (): [piece: string, step: string] | null => (step.value ? [pieceId.value, step.value.id] : null)

  function setValues(values: Values) {
    const at = inHand()
    if (at) design.change((now) => edits.setValues(now, ...at, values))
  }
  function previewValues(values: Values) {
    const at = inHand()
    if (at) design.preview((now) => edits.setValues(now, ...at, values))
  }

  /** A figure for a field, or, with field "ref", an artwork for the step itself. */
  function setOutline(field: string, picked: PickedOutline) {
    const at = inHand()
    if (!at) return
    const { drawn } = picked
    const values = field === 'ref' ? { ref: drawn?.key, layers: [] } : { [field]: picked.values }
    design.change((now) => edits.setValues(drawn ? edits.withArtwork(now, drawn.key, drawn.artwork) : now, ...at, values))
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
    const here = kind.starts_with ? 0 : step.value ? selection.index.value + 1 : steps.value.length
    const before = kind.needs === 'figure' && mirror() >= 0 ? mirror() : here
    const at = Math.min(here, before)
    const values = { ...initialValues(kind.form), ...said, kind: kind.kind }
    const piece = pieceId.value
    stepId.value = changeWithKey((now) => edits.addStep(now, piece, at, values))
  }

  /** A change that also makes a key: the one that it has in the newest document. */
  function changeWithKey(edit: (now: DesignData) => [DesignData, string]): string {
    let key = ''
    design.change((now) => {
      const [next, made] = edit(now)
      key ||= made
      return next
    })
    return key
  }

  function moveStep(id: string, to: number) {
    const piece = pieceId.value
    design.change((now) => edits.moveStep(now, piece, id, to))
  }

  function duplicate(id: string) {
    const piece = pieceId.value
    stepId.value = changeWithKey((now) => edits.duplicateStep(now, piece, id))
  }
  function remove(id: string, index: number) {
    const neighbour = steps.value[index - 1] ?? steps.value[index + 1]
    const piece = pieceId.value
    design.change((now) => edits.removeStep(now, piece, id))
    stepId.value = neighbour?.id ?? null
  }

  function actOn(id: string, action: StepAction) {
    const index = steps.value.findIndex((s) => s.id === id)
    const target = steps.value[index]
    if (!target) return
    const piece = pieceId.value
    const acts: Record<StepAction, () => void> = {
      switch: () => design.change((now) => edits.setValues(now, piece, id, { on: !target.on })),
      earlier: () => moveStep(id, index - 1),
      later: () => moveStep(id, index + 1),
      duplicate: () => duplicate(id),
      remove: () => remove(id, index),
    }
    acts[action]()
  }

  function mend(wish: Schemas['MendView']) {
    const touched = changeWithKey((now) => edits.applyChanges(now, wish.changes))
    if (touched) stepId.value = touched
    tell(t('Mended: {title}. Undo takes it back.', { title: wish.title }))
  }
  function takeJoin(join: Schemas['JoinView']) {
    design.change((now) => edits.applyChanges(now, join.changes)[0])
    tell(t('Joined so. Undo takes it back.'))
  }
  function lineUp(moves: edits.Moves) {
    const piece = pieceId.value
    design.change((now) => edits.setAll(now, piece, moves))
  }

  return { having, setValues, previewValues, setOutline, toggle, addStep, moveStep, actOn, mend, takeJoin, lineUp }
}
