<script setup lang="ts">
/** The bench: flat and folded side by side, the step in hand, readings, checks, the strip. */
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { DesignData, Values } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'
import { useCatalogue, type StepKind } from '@/shared/catalogue'
import { isDesignFile, openDesignFile } from '@/shared/designFile'
import { tell, tellError } from '@/shared/messages'
import { useShelf } from '@/shared/shelf'
import { t } from '@/shared/words'
import { useSession } from '@/features/session'
import { DropHint, ReadingDialog, useFileDrop } from '@/features/reading'
import BenchHeader from './BenchHeader.vue'
import BenchWaiting from './BenchWaiting.vue'
import BuildStrip from './BuildStrip.vue'
import type { Moves } from './commands/edits'
import { useAims } from './commands/useAims'
import { useArtworkCommands } from './commands/useArtworkCommands'
import { useBenchKeys } from './commands/useBenchKeys'
import { useCardCommands } from './commands/useCardCommands'
import { useExport } from './commands/useExport'
import { useStepCommands } from './commands/useStepCommands'
import FlatView from './flat/FlatView.vue'
import FoldedView from './folded/FoldedView.vue'
import AimDialog from './panes/AimDialog.vue'
import ConflictDialog from './panes/ConflictDialog.vue'
import ExportDialog from './panes/ExportDialog.vue'
import HistoryDialog from './panes/HistoryDialog.vue'
import MendBar from './panes/MendBar.vue'
import OfferBar from './panes/OfferBar.vue'
import FiguresPane from './panes/FiguresPane.vue'
import InHand from './panes/InHand.vue'
import LineUpDialog from './panes/LineUpDialog.vue'
import StepSearch from './panes/StepSearch.vue'
import WorkArea from './pieces/WorkArea.vue'
import { useDesign } from './state/useDesign'
import { useEvaluation } from './state/useEvaluation'
import { useFindings } from './state/useFindings'
import { useLeaving } from './state/useLeaving'
import { useLed } from './state/useLed'
import { useSelection } from './state/useSelection'

const props = defineProps<{ id: number }>()
const router = useRouter()
const catalogue = useCatalogue()
const shelf = useShelf()
const session = useSession()
const design = useDesign(props.id, session.owner)
const document_ = design.document
const selection = useSelection(document_)
const { pieceId, stepId, piece, steps, step, unit, paper } = selection
const computing = useEvaluation(document_, pieceId, stepId)
const { outline, flat, rest, pictures, trouble: computeTrouble } = computing
const act = useStepCommands(design, selection, flat)
const card = useCardCommands(design, selection)
const { dropped, keeping, takeNewer, keepDropped } = useArtworkCommands(design, selection)
const { exporting, exportFile, savePicture, saveDesign } = useExport(document_, pieceId)
const { over } = useFileDrop((file) => (isDesignFile(file) ? void openFile(file) : (dropped.value = file)))

const loadTrouble = ref('')
const [searching, liningUp, saving, history] = [ref(false), ref(false), ref(false), ref(false)]
const hovered = ref(-1)
const flatView = ref<InstanceType<typeof FlatView> | null>(null)
const colour = computed(() => paper.value?.outside ?? '#ddd')
const { findings, errors, marked, mark, offered } = useFindings(rest, selection)

const aims = useAims(design, findings)
const undo = () => (design.undo(), aims.leave())
const redo = () => (design.redo(), aims.leave())

async function load() {
  loadTrouble.value = ''
  try {
    await Promise.all([catalogue.load(), design.load(), shelf.load()])
    selection.goTo(document_.value?.pieces[0]?.id ?? 'base')
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    loadTrouble.value = error.text
  }
}

function choose(id: string | null) {
  stepId.value = id
  marked.value = null
}
function goTo(id: string) {
  selection.goTo(id)
  marked.value = null
}
const addStep = (kind: StepKind, said: Values) => ((searching.value = false), act.addStep(kind, said))
const lineUp = (moves: Moves) => ((liningUp.value = false), act.lineUp(moves))

useLed(searching, steps, step)
async function saveFiles(format: string, options: Values) {
  if (await exportFile(format, options)) saving.value = false
}
const goToDesign = (id: number) => router.push({ name: 'bench', params: { id } })
const openFile = (file: File) => openDesignFile(file).then(goToDesign, tellError)
const finishedPicture = computed(() => {
  const last = rest.value?.strip.at(-1)
  return last ? pictures.get(last.key) : undefined
})

const takeVersion = (version: DesignData) => ((history.value = false), design.change(() => version))
async function keepBoth() {
  try {
    const number = await design.keepBoth()
    tell(t('Your version is a design of its own now.'))
    await goToDesign(number)
  } catch (error) {
    tellError(error)
  }
}

useBenchKeys({
  undo,
  redo,
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
useLeaving(design.leave)
</script>

<template>
  <div v-if="loadTrouble" class="state" role="alert">
    <p>{{ loadTrouble }}</p>
    <span><ElButton @click="load">{{ $t('Try again') }}</ElButton> <ElButton text @click="router.push('/')">{{ $t('Back to the designs') }}</ElButton></span>
  </div>
  <BenchWaiting
    v-else-if="!document_ || !piece || !flat || !rest"
    :trouble="computeTrouble"
    :slow="computing.slow.value"
    :stopped="computing.stopped.value"
    @stop="computing.stop"
    @again="computing.run"
    @history="history = true"
    @leave="router.push('/')"
  />
  <div v-else class="bench">
    <BenchHeader
      :id="id"
      :document="document_"
      :closed="rest.closed"
      :state="design.state.value"
      :trouble="design.trouble.value"
      :saved-at="design.savedAt.value"
      :can-undo="design.canUndo.value"
      :can-redo="design.canRedo.value"
      :errors="errors"
      @rename="card.rename"
      @unit="card.setUnit"
      @undo="undo"
      @redo="redo"
      @save="design.save"
      @history="history = true"
      @export="saving = true"
    />
    <main class="work">
      <h1 class="visually-hidden">{{ document_.name }}</h1>
      <WorkArea
        :design="design" :document="document_"
        :rest="rest"
        :piece="piece"
        :unit="unit"
        :trouble="computeTrouble"
        :slow="computing.slow.value"
        :stopped="computing.stopped.value"
        @stop="computing.stop"
        @again="computing.run"
        @choose="goTo"
      >
        <template v-if="design.offered.value.length" #offer>
          <div>
            <OfferBar v-for="d in design.offered.value" :key="d.key" :at="d.at" @take="design.takeUp(d)" @leave="design.letGo(d)" />
          </div>
        </template>
        <template v-else-if="offered" #offer>
          <MendBar :finding="offered.finding" :mend="offered.mend" @mend="act.mend(offered.mend)" @leave="card.acceptFinding(offered.finding, $t('as intended'))" />
        </template>
        <FlatView
          ref="flatView"
          :flat="flat" :outline="outline"
          :document="document_"
          :piece="piece.id"
          :step="step"
          :unit="unit"
          :colour="colour"
          :inside="paper?.inside ?? colour"
          :marked="marked"
          :hovered="hovered"
          :finished="selection.finished.value ? rest : null"
          @card-preview="card.previewFolding"
          @card-commit="card.setFolding"
          @toggle="act.toggle"
          @hover="(i) => (hovered = i)"
          @preview="act.previewValues"
          @commit="act.setValues"
          @choose="(s) => (stepId = s)"
          @measure="card.setMeasure"
        />
      </WorkArea>
      <aside class="right">
        <FoldedView class="folded" :space="rest.space" :shut="rest.shut" :unit="unit" @save="savePicture" />
        <InHand
          :design="design" :document="document_"
          :piece="piece"
          :step="step"
          :index="selection.index.value"
          :flat="flat" :rest="rest"
          :hovered="hovered"
          :unit="unit"
          :colour="colour"
          @act="(a) => step && act.actOn(step.id, a)"
          @set="act.setValues"
          @preview="act.previewValues"
          @outline="act.setOutline"
          @toggle="act.toggle"
          @hover="(i) => (hovered = i)"
          @newer="takeNewer"
          @pieces="card.makePieces"
          @line-up="liningUp = true"
          @join="act.takeJoin"
        />
        <FiguresPane class="figures" :rest="rest" :marked="marked" :unit="unit" @mark="mark" @mend="act.mend" @accept="card.acceptFinding" @reopen="card.reopenFinding" @envelope="card.setEnvelope" @aim="(f) => (aims.aiming.value = f)" />
      </aside>
      <BuildStrip
        class="strip"
        :document="document_"
        :steps="steps"
        :strip="rest.strip"
        :pictures="pictures"
        :chosen="stepId"
        :unit="unit"
        :colour="colour"
        @choose="choose"
        @add="searching = true"
        @move="act.moveStep"
        @act="act.actOn"
      />
      <DropHint :over="over" />
      <ReadingDialog
        v-if="dropped"
        :file="dropped"
        :unit="unit"
        :card="document_.card.size"
        :verb="$t('Keep, and start the piece with it')"
        also-keep
        :busy="keeping"
        @close="dropped = null"
        @keep="(w) => keepDropped(w, false)" @take="(w) => keepDropped(w, true)"
      />
      <ExportDialog
        v-if="saving"
        :document="document_"
        :findings="findings" :behind="computing.behind.value"
        :picture="finishedPicture"
        :piece="piece.id"
        :unit="unit"
        :colour="colour"
        :busy="exporting"
        @close="saving = false"
        @save="saveFiles" @design="saveDesign"
      />
      <AimDialog
        v-if="aims.aiming.value !== null"
        :document="document_"
        :piece="piece.id"
        :figure="aims.aiming.value"
        :unit="unit"
        :colour="colour"
        @close="aims.aiming.value = null"
        @take="aims.take" @forget="aims.forget"
      />
      <LineUpDialog v-if="liningUp && step" :document="document_" :piece="piece.id" :step="step.id" :unit="unit" @close="liningUp = false" @take="lineUp" />
      <StepSearch v-if="searching" :started="steps.length > 0" :layer="piece.host !== ''" :unit="unit" :having="act.having.value" @close="searching = false" @pick="addStep" />
      <ConflictDialog v-if="design.conflict.value" @mine="design.keepMine" @theirs="design.takeTheirs" @both="keepBoth" />
      <HistoryDialog v-if="history" :id="id" :unit="unit" @close="history = false" @take="takeVersion" />
    </main>
  </div>
</template>

<style scoped src="./bench.css"></style>
