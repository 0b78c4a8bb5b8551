<script setup lang="ts">
/** The bench: flat and folded side by side, the step in hand, readings, checks, the strip. */
import { computed, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '@/shared/api/client'
import type { DesignData, StepData, Unit } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'
import { useCatalogue, type StepKind } from '@/shared/catalogue'
import { tell, tellError } from '@/shared/messages'
import { initialValues } from '@/shared/schemaForm'
import { drawnOutline, startOf, type PickedOutline } from '@/features/outlines/picked'
import DropHint from '@/features/reading/DropHint.vue'
import ReadingDialog, { type Wish } from '@/features/reading/ReadingDialog.vue'
import { useFileDrop } from '@/features/reading/useFileDrop'
import { ownHandles, ownWidths, withWidths } from '@/features/folding/ownFolds'
import { useShelf } from '@/shared/shelf'
import BenchHeader from './BenchHeader.vue'
import BuildStrip from './BuildStrip.vue'
import ConflictDialog from './ConflictDialog.vue'
import * as edits from './edits'
import FiguresPane from './FiguresPane.vue'
import FlatView from './flat/FlatView.vue'
import LapTools from './LapTools.vue'
import LineUpDialog from './LineUpDialog.vue'
import PieceTabs from './PieceTabs.vue'
import FoldedView from './folded/FoldedView.vue'
import SizePane from './SizePane.vue'
import StepBar from './StepBar.vue'
import StepPane from './StepPane.vue'
import StepSearch from './StepSearch.vue'
import { useBenchKeys } from './useBenchKeys'
import { useDesign } from './useDesign'
import { useEvaluation } from './useEvaluation'
import { useExport } from './useExport'

const props = defineProps<{ id: number }>()
const router = useRouter()
const catalogue = useCatalogue()
const shelf = useShelf()
const design = useDesign(props.id)
const document_ = design.document
const pieceId = ref('base')
/** The step in hand; null is the card's size. */
const stepId = ref<string | null>(null)
const { outcome, pictures, trouble: computeTrouble } = useEvaluation(document_, pieceId, stepId)

const loadTrouble = ref('')
const searching = ref(false)
const marked = ref<Schemas['FindingView'] | null>(null)
const hovered = ref(-1)
const dropped = ref<File | null>(null)
const keeping = ref(false)
const liningUp = ref(false)
const { over } = useFileDrop((file) => (dropped.value = file))
const { exporting, exportFile } = useExport(document_, pieceId)
const flatView = ref<InstanceType<typeof FlatView> | null>(null)

async function load() {
  loadTrouble.value = ''
  try {
    await Promise.all([catalogue.load(), design.load(), shelf.load()])
    pieceId.value = document_.value?.pieces[0]?.id ?? 'base'
    stepId.value = document_.value?.pieces[0]?.steps.at(-1)?.id ?? null
    if (design.restored.value) tell('Changes that were not saved yet are here again.', 'info')
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    loadTrouble.value = error.text
  }
}

const piece = computed(() => (document_.value ? edits.pieceOf(document_.value, pieceId.value) : null))
const steps = computed(() => piece.value?.steps ?? [])
const step = computed(() => steps.value.find((s) => s.id === stepId.value) ?? null)
const unit = computed<Unit>(() => document_.value?.units ?? 'mm')
const paper = computed(() => document_.value?.papers.find((p) => p.id === piece.value?.paper))
const colour = computed(() => paper.value?.outside ?? '#ddd')
const problem = computed(() => outcome.value?.strip.find((s) => s.step === stepId.value)?.problem ?? null)
const findings = computed(() => outcome.value?.findings ?? [])
/** Whether the flat view shows the finished piece, of which the rest is measured. */
const finished = computed(() => steps.value.filter((s) => s.on).at(-1)?.id === stepId.value || !step.value)
/** The creases of an own way of folding can be taken hold of while the card is in hand. */
const cardHandles = computed(() =>
  step.value || !document_.value ? null : { handles: ownHandles(document_.value), values: ownWidths(document_.value) },
)
const errors = computed(() => findings.value.filter((f) => f.severity === 'error').length)

// a finding that is gone needs no mark; one that stays is marked where it is now
watch(findings, (now) => {
  if (marked.value) {
    const before = marked.value
    marked.value = now.find((f) => f.code === before.code && f.step === before.step) ?? null
  }
})
watch(steps, (now) => {
  if (stepId.value && !now.some((s) => s.id === stepId.value)) stepId.value = now.at(-1)?.id ?? null
})

function changed(next: DesignData) {
  design.change(next)
}
function setValues(values: Readonly<Record<string, unknown>>) {
  if (document_.value && step.value) changed(edits.setValues(document_.value, pieceId.value, step.value.id, values))
}
function previewValues(values: Readonly<Record<string, unknown>>) {
  if (document_.value && step.value) {
    design.preview(edits.setValues(document_.value, pieceId.value, step.value.id, values))
  }
}

function setOutline(field: string, picked: PickedOutline) {
  if (!document_.value || !step.value) return
  let next = document_.value
  if (picked.drawn) next = edits.withArtwork(next, picked.drawn.key, picked.drawn.artwork)
  const values = field === 'ref' ? { ref: picked.drawn?.key, layers: [] } : { [field]: picked.values }
  changed(edits.setValues(next, pieceId.value, step.value.id, values))
}

/** Something picked or given back; from then on the picked ones count. */
function toggle(candidate: number) {
  const pick = outcome.value?.flat.handles.find((h) => h.shape === 'pick')
  if (!pick?.candidates[candidate]) return
  const taken = pick.candidates.filter((c, i) => c.taken !== (i === candidate))
  setValues({ [pick.picked_by]: 'picked', [pick.field]: taken.map((c) => c.share) })
}

/** A part that the split in hand left over, as a piece of its own. */
function makePiece(part: number) {
  if (!document_.value || !step.value) return
  const [next, made] = edits.addPart(document_.value, pieceId.value, step.value.id, part)
  changed(next)
  goTo(made)
}
function goTo(id: string) {
  pieceId.value = id
  stepId.value = piece.value?.steps.at(-1)?.id ?? null
  marked.value = null
}
function removePiece(id: string) {
  if (!document_.value) return
  const next = edits.removePiece(document_.value, id)
  goTo(next.pieces[0]!.id)
  changed(next)
}
function lineUp(moves: edits.Moves) {
  liningUp.value = false
  if (document_.value) changed(edits.setAll(document_.value, pieceId.value, moves))
}
/** The closed card's measure, typed on a dimension line. */
function setMeasure(axis: 'x' | 'y', mm: number) {
  if (!document_.value) return
  if (mm < edits.LEAST_CARD || mm > edits.MOST_CARD) return tell('A card is between 10 and 1000 mm wide and high.', 'warning')
  changed(edits.setMeasure(document_.value, axis, mm))
}

async function useNewer(earlier: string, id: number) {
  try {
    const row = await shelf.full(id)
    if (document_.value) changed(edits.replaceArtwork(document_.value, earlier, row.key, row.artwork))
  } catch (error) {
    tellError(error)
  }
}

async function keepDropped(wish: Wish, start: boolean) {
  keeping.value = true
  try {
    const row = await shelf.keepArtwork(wish.artwork, wish.tags, wish.source)
    dropped.value = null
    if (start && document_.value) {
      const next = edits.withArtwork(document_.value, row.key, row.artwork)
      const values = { ...initialValues(catalogue.step('artwork')!.form), ...startOf(drawnOutline(row)) }
      const [done, key_] = edits.setStart(next, pieceId.value, values, (k) => Boolean(catalogue.step(k)?.starts))
      changed(done)
      stepId.value = key_
    } else tell(`“${row.name}” is on the shelf.`)
  } catch (error) {
    tellError(error)
  } finally {
    keeping.value = false
  }
}

function addStep(kind: StepKind) {
  searching.value = false
  if (!document_.value) return
  const at = kind.starts ? 0 : step.value ? steps.value.indexOf(step.value) + 1 : steps.value.length
  const [next, key] = edits.addStep(document_.value, pieceId.value, at, { ...initialValues(kind.form), kind: kind.kind })
  changed(next)
  stepId.value = key
}

function actOn(id: string, action: string) {
  const doc = document_.value
  const target = steps.value.find((s) => s.id === id)
  if (!doc || !target) return
  const index = steps.value.indexOf(target)
  if (action === 'switch') changed(edits.setValues(doc, pieceId.value, id, { on: !target.on }))
  else if (action === 'earlier') moveStep(id, index - 1)
  else if (action === 'later') moveStep(id, index + 1)
  else if (action === 'duplicate') {
    const [next, key] = edits.duplicateStep(doc, pieceId.value, id)
    changed(next)
    stepId.value = key
  } else if (action === 'remove') {
    const neighbour: StepData | undefined = steps.value[index - 1] ?? steps.value[index + 1]
    changed(edits.removeStep(doc, pieceId.value, id))
    stepId.value = neighbour?.id ?? null
  }
}
function moveStep(id: string, to: number) {
  if (document_.value) changed(edits.moveStep(document_.value, pieceId.value, id, to))
}

function mend(wish: Schemas['MendView']) {
  if (!document_.value) return
  const [next, touched] = edits.applyChanges(document_.value, wish.changes)
  changed(next)
  if (touched) stepId.value = touched
  tell(`Mended: ${wish.title}. Undo takes it back.`)
}

function takeJoin(join: Schemas['JoinView']) {
  if (!document_.value) return
  changed(edits.applyChanges(document_.value, join.changes)[0])
  tell('Joined so. Undo takes it back.')
}

function mark(finding: Schemas['FindingView'] | null) {
  marked.value = finding
  // places are measured on the finished piece
  if (finding) stepId.value = finding.step || steps.value.at(-1)?.id || null
}

async function keepBoth() {
  try {
    const number = await design.keepBoth()
    tell('Your version is a design of its own now.')
    await router.push({ name: 'bench', params: { id: number } })
  } catch (error) {
    tellError(error)
  }
}

useBenchKeys({
  undo: design.undo,
  redo: design.redo,
  save: () => void design.save(),
  search: () => (searching.value = true),
  searching: () => searching.value,
  whole: () => flatView.value?.fit(),
  near: () => flatView.value?.near(),
  turnOver: () => flatView.value?.turnOver(),
  bare: () => flatView.value?.toggleBare(),
  loupe: (by) => void flatView.value?.stepLoupe(by),
  giveUp: () => {
    marked.value = null
    design.giveUp()
  },
})
onMounted(load)
</script>

<template>
  <div v-if="loadTrouble" class="state" role="alert">
    <p>{{ loadTrouble }}</p>
    <span><ElButton @click="load">Try again</ElButton> <ElButton text @click="router.push('/')">Back to the designs</ElButton></span>
  </div>
  <div v-else-if="!document_ || !piece || !outcome" class="state" aria-busy="true">
    <p class="soft">{{ computeTrouble || 'Laying out the card …' }}</p>
  </div>
  <div v-else class="bench">
    <BenchHeader
      :document="document_"
      :closed="outcome.closed"
      :state="design.state.value"
      :trouble="design.trouble.value"
      :saved-at="design.savedAt.value"
      :can-undo="design.canUndo.value"
      :can-redo="design.canRedo.value"
      :exporting="exporting"
      :errors="errors"
      @rename="(name) => name.trim() && document_ && changed({ ...document_, name: name.trim() })"
      @unit="(units) => document_ && changed({ ...document_, units })"
      @undo="design.undo"
      @redo="design.redo"
      @save="design.save"
      @export="exportFile"
    />
    <div class="left">
      <PieceTabs
        :model-value="pieceId"
        :document="document_"
        :trouble="computeTrouble"
        @update:model-value="goTo"
        @remove="removePiece"
        @rename="(id, name) => document_ && changed(edits.renamePiece(document_, id, name))"
      />
      <FlatView
        ref="flatView"
        :flat="outcome.flat"
        :document="document_"
        :piece="pieceId"
        :step="step"
        :unit="unit"
        :colour="colour"
        :inside="paper?.inside ?? colour"
        :marked="marked"
        :artworks="document_.artworks"
        :hovered="hovered"
        :card="cardHandles"
        :finished="finished ? outcome : null"
        @card-preview="(v) => document_ && design.preview(withWidths(document_, v))"
        @card-commit="(v) => document_ && changed(withWidths(document_, v))"
        @toggle="toggle"
        @hover="(i) => (hovered = i)"
        @preview="previewValues"
        @commit="setValues"
        @choose="(s) => (stepId = s)"
        @measure="setMeasure"
      />
    </div>
    <aside class="right">
      <FoldedView class="folded" :space="outcome.space" :shut="outcome.shut" :unit="unit" />
      <div class="in-hand">
        <StepBar
          :step="step"
          :index="step ? steps.indexOf(step) : -1"
          :count="steps.length"
          @act="(a: string) => step && actOn(step.id, a)"
        />
        <div class="scroll">
          <StepPane
            v-if="step"
            :step="step"
            :document="document_"
            :problem="problem"
            :flat="outcome.flat"
            :hovered="hovered"
            :unit="unit"
            @change="setValues"
            @outline="setOutline"
            @toggle="toggle"
            @hover="(i) => (hovered = i)"
            @newer="useNewer"
            @piece="makePiece"
            @line-up="liningUp = true"
          />
          <LapTools
            v-if="step && outcome.lap && outcome.lap.step === step.id"
            :step="step"
            :curve="outcome.lap"
            :document="document_"
            :piece="pieceId"
            :unit="unit"
            :colour="colour"
            @preview="previewValues"
            @commit="setValues"
            @take="takeJoin"
          />
          <SizePane v-if="!step" :document="document_" :piece="piece" @change="changed" />
        </div>
      </div>
      <FiguresPane class="figures" :rest="outcome" :marked="marked" :unit="unit" @mark="mark" @mend="mend" />
    </aside>
    <BuildStrip
      class="strip"
      :document="document_"
      :steps="steps"
      :strip="outcome.strip"
      :pictures="pictures"
      :chosen="stepId"
      :unit="unit"
      :colour="colour"
      @choose="(s) => ((stepId = s), (marked = null))"
      @add="searching = true"
      @move="moveStep"
      @act="actOn"
    />
    <DropHint :over="over" />
    <ReadingDialog
      v-if="dropped"
      :file="dropped"
      :unit="unit"
      :card="document_.card.size"
      verb="Keep, and start the piece with it"
      also-keep
      :busy="keeping"
      @close="dropped = null"
      @keep="(w) => keepDropped(w, false)"
      @take="(w) => keepDropped(w, true)"
    />
    <LineUpDialog v-if="liningUp && step" :document="document_" :piece="pieceId" :step="step.id" :unit="unit" @close="liningUp = false" @take="lineUp" />
    <StepSearch v-if="searching" :started="steps.length > 0" @close="searching = false" @pick="addStep" />
    <ConflictDialog v-if="design.conflict.value" @mine="design.keepMine" @theirs="design.takeTheirs" @both="keepBoth" />
  </div>
</template>

<style scoped>
.state {
  height: 100%;
  display: grid;
  place-content: center;
  gap: 14px;
  justify-items: center;
}
.bench {
  height: 100%;
  display: grid;
  grid-template: 48px minmax(0, 1fr) auto / minmax(0, 1fr) 376px;
}
.bench > header {
  grid-column: 1 / -1;
}
.strip {
  grid-column: 1 / -1;
}
.left {
  display: grid;
  grid-template-rows: 34px minmax(0, 1fr);
  min-width: 0;
}
.right {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: minmax(236px, 1.3fr) minmax(0, auto) minmax(128px, 0.6fr);
  border-left: 1px solid var(--border);
  min-height: 0;
  background: var(--chrome);
}
.in-hand {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
}
.in-hand,
.figures {
  border-top: 1px solid var(--border);
}
.in-hand {
  max-height: 252px;
}
.scroll {
  overflow: auto;
  padding: 6px 16px 12px;
  font-size: 13.5px;
}
</style>
