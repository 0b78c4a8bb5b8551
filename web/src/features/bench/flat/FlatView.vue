<script setup lang="ts">
/** The piece after the step in hand, with rulers, dimension lines, folds and handles. */
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { DesignData, StepData, Unit } from '@/shared/api/document'
import PaperPatterns from '@/shared/components/PaperPatterns.vue'
import { valueAt } from '@/shared/values'
import { called } from '@/shared/words'
import ActualSizeDialog from './ActualSizeDialog.vue'
import ArtworkLayers from './ArtworkLayers.vue'
import BareLines from './BareLines.vue'
import DimensionLines from './DimensionLines.vue'
import type { Figures } from './handles/handle'
import HandleMarks from './handles/HandleMarks.vue'
import FoldMarks from './FoldMarks.vue'
import LineKey from './LineKey.vue'
import LoupeInset from './LoupeInset.vue'
import RulerBars from './RulerBars.vue'
import SheetFrame from './SheetFrame.vue'
import type { Typed } from './typed'
import TypeOver from './TypeOver.vue'
import { useClearLabels } from './useClearLabels'
import { useFitting } from './useFitting'
import { useFreePlace, type Spot } from './useFreePlace'
import { usePinch } from './usePinch'
import { useViewport } from './useViewport'
import ViewTools from './ViewTools.vue'

const props = defineProps<{
  flat: Schemas['FlatView']
  /** The piece's outline: of an edit it is there a frame before all else. */
  outline: string
  document: DesignData
  piece: string
  step: StepData | null
  unit: Unit
  colour: string
  inside: string
  marked: Schemas['FindingView'] | null
  hovered: number
  /** What is measured of the finished piece, while that is what is shown. */
  finished: Pick<Schemas['RestView'], 'loupe' | 'ticks' | 'lap'> | null
}>()
const emit = defineEmits<{
  preview: [figures: Figures]
  commit: [figures: Figures]
  toggle: [candidate: number]
  hover: [candidate: number]
  cardPreview: [figures: Figures]
  cardCommit: [figures: Figures]
  choose: [step: string]
  /** A measure of the closed card, typed over on a dimension line. */
  measure: [axis: 'x' | 'y', mm: number]
}>()

const element = ref<SVGSVGElement | null>(null)
const viewport = useViewport(element)
const box = computed(() => {
  const [left, head, right, foot] = props.flat.box
  return { left, head, right, foot }
})

const { fit, near, turnOver, actual, measuring } = useFitting(viewport, () => props.flat, () => props.step?.id)

/** The box that gaps of a moved thing are measured to: its panel, or the whole piece. */
const within = computed(() => {
  const target = props.step && valueAt(props.step, 'target')
  const panel = props.flat.panels.find((p) => p.name === target)
  return panel?.box ?? props.flat.box
})

const pinch = usePinch(viewport)
let from: { x: number; y: number } | null = null
function down(event: PointerEvent) {
  pinch.down(event)
  if (event.button === 0 || event.button === 1) {
    from = { x: event.clientX, y: event.clientY }
    element.value?.setPointerCapture(event.pointerId)
  }
}
function up(event: PointerEvent) {
  pinch.up(event)
  from = null
}
function move(event: PointerEvent) {
  if (pinch.move(event) || !from) return
  viewport.pan(event.clientX - from.x, event.clientY - from.y)
  from = { x: event.clientX, y: event.clientY }
}
function wheel(event: WheelEvent) {
  const frame = element.value?.getBoundingClientRect()
  if (!frame) return
  viewport.zoomAt(event.clientX - frame.left, event.clientY - frame.top, Math.exp(-event.deltaY * 0.0015))
}
const zoom = (factor: number) => viewport.zoomAt(viewport.view.width / 2, viewport.view.height / 2, factor)
const panels = computed(() =>
  props.flat.panels.map((p) => ({ name: p.name, x: viewport.toX(p.label[0]), y: viewport.toY(p.label[1]) })),
)
const placed = computed(() => {
  const artwork = props.flat.artwork && props.document.artworks[props.flat.artwork.ref]
  return artwork && artwork.layers.length > 1 ? { placed: props.flat.artwork!, artwork } : null
})
const loupe = ref<InstanceType<typeof LoupeInset> | null>(null)
/** Shown where there is something thin, or a seam in hand; shown or hidden for good when asked. */
const loupeAsked = ref<boolean | null>(null)
const loupeShown = computed(
  () => loupeAsked.value ?? Boolean(props.finished?.loupe.some((p) => p.value !== null) || lost.value),
)
/** Where the loupe covers the least: along the foot or the head, or standing at a side. */
const loupePlaces = computed<Spot[]>(() => {
  const { width, height } = viewport.view
  const [lying, standing] = [{ width: 270, height: 132 }, { width: 132, height: 214 }]
  const [left, right, top, foot] = [34, width - 10, 66, height - 44]
  return [
    { left, top: foot - lying.height, ...lying },
    { left: right - lying.width, top: foot - lying.height, ...lying },
    { left: right - standing.width, top: foot - standing.height, ...standing },
    { left, top: foot - standing.height, ...standing },
    { left: right - standing.width, top, ...standing },
    { left, top, ...standing },
    { left, top, ...lying },
    { left: right - lying.width, top, ...lying },
  ]
})
async function stepLoupe(by: number) {
  if (loupeShown.value) return loupe.value?.step(by)
  loupeAsked.value = true
}
/** A finding's place under the loupe, where it is one of the loupe's. */
watch(
  () => props.marked,
  (marked) => {
    const [line] = marked?.lines ?? []
    if (!line) return
    const [x, y] = [(line[0] + line[2]) / 2, (line[1] + line[3]) / 2]
    const near = props.finished?.loupe.findIndex((p) => Math.hypot(p.x - x, p.y - y) < 2) ?? -1
    loupe.value?.show(near)
  },
)
/** What the lap costs, while the mirror is in hand. */
const lost = computed(() => (props.finished?.lap && props.step?.id === props.finished.lap.step ? props.finished.lap.lost : ''))
const layersShown = ref(true)
const bare = ref(false)
const bareTold = ref('')
const keyShown = ref(false)
const sheetShown = ref(false)
const paper = computed(() => {
  const own = props.document.pieces.find((p) => p.id === props.piece)
  return props.document.papers.find((p) => p.id === own?.paper)
})
const typed = ref<Typed | null>(null)
/** Where something is dragged: the loupe goes there. */
const draggedAt = ref<{ x: number; y: number } | null>(null)
const loupeAt = useFreePlace(element, () => (loupeShown.value ? loupePlaces.value : []), () => [props.flat, loupePlaces.value, viewport.view.x, viewport.view.y, viewport.view.scale, viewport.view.inside, loupeShown.value])
useClearLabels(element, () => [props.flat, props.unit, props.step?.id, typed.value, sheetShown.value, viewport.view.x, viewport.view.y, viewport.view.scale, viewport.view.inside])
defineExpose({ fit, near, zoom, stepLoupe, turnOver, toggleBare: () => (bare.value = !bare.value) })
</script>

<template>
  <div class="flat" data-testid="flat-view">
    <svg
      ref="element"
      role="group"
      :aria-label="$t('Flat view, {unit}', { unit })"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
      @wheel.prevent="wheel"
    >
      <PaperPatterns :papers="paper ? [paper] : []" name="flat" />
      <defs>
        <pattern id="hatch-lost" width="5" height="5" patternUnits="userSpaceOnUse" :patternTransform="`scale(${1 / viewport.view.scale}) rotate(45)`">
          <path d="M0 0V5" class="hatch" />
        </pattern>
      </defs>
      <g v-if="!bare" :transform="viewport.transform.value">
        <path v-for="g in flat.around" :key="g.piece" class="about" :class="{ above: g.above }" :d="g.path"><title>{{ g.name }}</title></path>
        <path v-if="flat.before" class="before" :d="flat.before" />
        <path class="paper" data-testid="flat-path" :d="outline" :fill="viewport.view.inside ? inside : paper && paper.pattern !== 'none' ? 'url(#flat-0)' : colour" />
        <path v-for="(l, i) in flat.lines" :key="i" class="line" :class="l.how" :d="l.path" :style="l.colour ? { stroke: l.colour } : undefined" />
        <path v-for="g in flat.around.filter((a) => a.above)" :key="`${g.piece}-above`" class="about over" :d="g.path" />
        <ArtworkLayers v-if="placed && layersShown" :placed="placed.placed" :artwork="placed.artwork" />
      </g>
      <BareLines
        v-else
        :document="document"
        :piece="piece"
        :viewport="viewport"
        :unit="unit"
        @told="(t) => (bareTold = t)"
        @choose="(s) => emit('choose', s)"
      />
      <g v-for="p in bare ? [] : panels" :key="p.name" class="panel">
        <text data-yields="" :x="p.x" :y="p.y">{{ called(p.name) }}</text>
      </g>
      <path v-if="lost" class="lost" :transform="viewport.transform.value" :d="lost"><title>{{ $t('What the lap costs the figure') }}</title></path>
      <FoldMarks v-if="!bare" :folds="flat.folds" :ticks="finished?.ticks ?? []" :viewport="viewport" :unit="unit" />
      <DimensionLines :flat="flat" :document="document" :viewport="viewport" :unit="unit" @type="(t) => (typed = t)" @measure="(axis, mm) => emit('measure', axis, mm)" />
      <g v-if="marked" :key="marked.message" class="marked" :class="marked.severity" :transform="viewport.transform.value">
        <path v-for="(d, i) in marked.outlines" :key="`o${i}`" :d="d" />
        <line v-for="(l, i) in marked.lines" :key="`l${i}`" :x1="l[0]" :y1="l[1]" :x2="l[2]" :y2="l[3]" />
      </g>
      <template v-if="step && !bare">
        <HandleMarks
          :key="step.id"
          :handles="flat.handles"
          :values="step"
          :guides="flat.guides"
          :within="within"
          :viewport="viewport"
          :unit="unit"
          :effect="flat.effect"
          :hovered="hovered"
          @preview="(v) => emit('preview', v)"
          @commit="(v) => emit('commit', v)"
          @type="(t) => (typed = t)"
          @dragged="(p) => (draggedAt = p)"
          @toggle="(i) => emit('toggle', i)"
          @hover="(i) => emit('hover', i)"
        />
      </template>
      <HandleMarks
        v-if="!step"
        :handles="flat.card_handles"
        :values="document.card.folding"
        :guides="[]"
        :within="flat.box"
        :viewport="viewport"
        :unit="unit"
        @preview="(v) => emit('cardPreview', v)"
        @commit="(v) => emit('cardCommit', v)"
        @type="(t) => (typed = t)"
      />
      <SheetFrame v-if="sheetShown && paper && flat.path" :box="flat.box" :paper="paper" :viewport="viewport" :unit="unit" />
      <RulerBars :viewport="viewport" :unit="unit" :origin-x="box.left" :origin-y="box.head" />
    </svg>
    <ViewTools
      v-model:bare="bare"
      v-model:key-shown="keyShown"
      v-model:sheet-shown="sheetShown"
      :viewport="viewport"
      :in-hand="flat.handles.some((h) => h.shape === 'box')"
      @whole="fit"
      @near="near"
      @actual="actual"
      @turn-over="turnOver"
      @zoom="zoom"
    />
    <LineKey v-if="keyShown" />
    <p v-if="bare" class="told" role="status">{{ bareTold }}</p>
    <TypeOver v-if="typed" :key="`${typed.label}-${typed.x}`" :typed="typed" :unit="unit" @close="typed = null" />
    <ActualSizeDialog v-if="measuring" :unit="unit" @close="measuring = false" @take="viewport.zoomTo" />
    <LoupeInset v-if="(finished?.loupe.length && loupeShown) || draggedAt" ref="loupe" :places="finished?.loupe ?? []" :follow="draggedAt" :path="flat.path" :folds="flat.folds" :colour="colour" :unit="unit" :spot="loupePlaces[loupeAt] ?? loupePlaces[0]!" />
    <div class="switches">
      <button v-if="placed" :aria-pressed="layersShown" @click="layersShown = !layersShown">{{ layersShown ? $t('Hide the layers') : $t('Show the layers') }}</button>
      <button v-if="finished?.loupe.length" :aria-pressed="loupeShown" @click="loupeAsked = !loupeShown">{{ loupeShown ? $t('Hide the loupe') : $t('Show the loupe') }}</button>
    </div>
    <p v-if="!flat.path" class="nothing soft">{{ $t('Nothing is built yet. Put a blank or a figure first in the strip below.') }}</p>
  </div>
</template>

<style scoped src="./flat.css"></style>
