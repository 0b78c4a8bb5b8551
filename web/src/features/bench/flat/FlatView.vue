<script setup lang="ts">
/** The piece after the step in hand, with rulers, dimension lines, folds and handles. */
import { computed, nextTick, ref, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Artwork, DesignData, StepData, Unit } from '@/shared/api/document'
import ActualSizeDialog from './ActualSizeDialog.vue'
import ArtworkLayers from './ArtworkLayers.vue'
import BareLines from './BareLines.vue'
import DimensionLines from './DimensionLines.vue'
import DragHandle from './DragHandle.vue'
import FoldMarks from './FoldMarks.vue'
import LineKey from './LineKey.vue'
import LoupeInset from './LoupeInset.vue'
import PickMarks from './PickMarks.vue'
import RulerBars from './RulerBars.vue'
import { rulerScale } from './rulerScale'
import SizeGrips from './SizeGrips.vue'
import type { Typed } from './typed'
import TypeOver from './TypeOver.vue'
import { usePinch } from './usePinch'
import { useViewport } from './useViewport'
import ViewTools from './ViewTools.vue'

const props = defineProps<{
  flat: Schemas['FlatView']
  document: DesignData
  piece: string
  step: StepData | null
  unit: Unit
  colour: string
  inside: string
  marked: Schemas['FindingView'] | null
  artworks: Readonly<Record<string, Artwork>>
  hovered: number
  /** Handles of the card itself, while it is in hand, with their values. */
  card: { handles: readonly Schemas['HandleView'][]; values: Readonly<Record<string, number>> } | null
  /** What is measured of the finished piece, while that is what is shown. */
  finished: Pick<Schemas['RestView'], 'loupe' | 'ticks' | 'lap'> | null
}>()
const emit = defineEmits<{
  preview: [values: Record<string, number>]
  commit: [values: Record<string, number>]
  toggle: [candidate: number]
  hover: [candidate: number]
  cardPreview: [values: Record<string, number>]
  cardCommit: [values: Record<string, number>]
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

/** What is shown of it all: the piece, and the parts that the step in hand has cut off. */
const whole = computed(() => {
  const boxes = [props.flat.box, ...props.flat.parts.map((p) => p.box)]
  const side = (i: number, pick: (...v: number[]) => number) => pick(...boxes.map((b) => b[i]!))
  return { left: side(0, Math.min), head: side(1, Math.min), right: side(2, Math.max), foot: side(3, Math.max) }
})
function fit() {
  viewport.fit(whole.value)
}
/** The other side of the sheet. */
function turnOver() {
  const { touched } = viewport.view
  viewport.turnOver()
  if (!touched) fit()
}
/** What is in hand, or the finding that is marked, with some room round it. */
function near() {
  const boxes = props.flat.handles.filter((h) => h.shape === 'box').map((h) => h.box)
  if (!boxes.length) return fit()
  const side = (i: number, pick: (...v: number[]) => number) => pick(...boxes.map((b) => b[i]!))
  const bounds = { left: side(0, Math.min), head: side(1, Math.min), right: side(2, Math.max), foot: side(3, Math.max) }
  viewport.fit(bounds, { left: 110, head: 120, right: 130, foot: 110 })
  viewport.pan(0, 0)
}
const measuring = ref(false)
function actual() {
  if (rulerScale.value) viewport.zoomTo(rulerScale.value)
  else measuring.value = true
}
// the first picture, and every other size of the window, unless somebody has moved the view
let fitted = ''
watch(
  () => [viewport.view.width, viewport.view.height, Object.values(whole.value).join(), props.step?.id] as const,
  async ([width, height, bounds, step]) => {
    if (!bounds || viewport.view.touched) return
    const { left, head, right, foot } = whole.value
    const { toX, toY } = viewport
    const inside =
      toX(left) > 24 && toY(head) > 24 && toX(right) < width - 60 && toY(foot) < height - 50
    const large = (toX(right) - toX(left)) / width > 0.45 || (toY(foot) - toY(head)) / height > 0.45
    const frame = `${width}x${height}:${step}`
    if (frame === fitted && inside && large) return
    fitted = frame
    await nextTick()
    fit()
  },
  { immediate: true },
)

/** The box that gaps of a moved thing are measured to: its panel, or the whole piece. */
const within = computed(() => {
  const target = props.step?.target
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
  const artwork = props.flat.artwork && props.artworks[props.flat.artwork.ref]
  return artwork && artwork.layers.length > 1 ? { placed: props.flat.artwork!, artwork } : null
})
const loupe = ref<InstanceType<typeof LoupeInset> | null>(null)
/** Shown where there is something thin, or a seam in hand; shown or hidden for good when asked. */
const loupeAsked = ref<boolean | null>(null)
const loupeShown = computed(
  () => loupeAsked.value ?? Boolean(props.finished?.loupe.some((p) => p.value !== null) || lost.value),
)
/** Where there is more room for the loupe: below the piece, or beside it and its dimensions. */
const lying = computed(() => viewport.view.width - viewport.toX(box.value.right) < 70 + 145)
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
const dragged = computed(() => props.flat.handles.filter((h) => h.shape !== 'pick'))
const pick = computed(() => props.flat.handles.find((h) => h.shape === 'pick'))
const bare = ref(false)
const bareTold = ref('')
const keyShown = ref(false)
const typed = ref<Typed | null>(null)
/** Where something is dragged: the loupe goes there. */
const draggedAt = ref<{ x: number; y: number } | null>(null)
defineExpose({ fit, near, zoom, stepLoupe, turnOver, toggleBare: () => (bare.value = !bare.value) })
</script>

<template>
  <div class="flat" data-testid="flat-view">
    <svg
      ref="element"
      role="img"
      :aria-label="`Flat view, ${unit}`"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
      @wheel.prevent="wheel"
    >
      <defs>
        <pattern id="hatch-lost" width="5" height="5" patternUnits="userSpaceOnUse" :patternTransform="`scale(${1 / viewport.view.scale}) rotate(45)`">
          <path d="M0 0V5" class="hatch" />
        </pattern>
      </defs>
      <g v-if="!bare" :transform="viewport.transform.value">
        <path v-if="flat.before" class="before" :d="flat.before" />
        <path class="paper" data-testid="flat-path" :d="flat.path" :fill="viewport.view.inside ? inside : colour" />
        <path v-for="(l, i) in flat.lines" :key="i" class="line" :class="l.how" :d="l.path" />
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
        <text :x="p.x" :y="p.y">{{ p.name }}</text>
      </g>
      <path v-if="lost" class="lost" :transform="viewport.transform.value" :d="lost"><title>What the lap costs the figure</title></path>
      <FoldMarks v-if="!bare" :folds="flat.folds" :ticks="finished?.ticks ?? []" :viewport="viewport" :unit="unit" />
      <DimensionLines :flat="flat" :document="document" :viewport="viewport" :unit="unit" @type="(t) => (typed = t)" @measure="(axis, mm) => emit('measure', axis, mm)" />
      <g v-if="marked" :key="marked.message" class="marked" :class="marked.severity" :transform="viewport.transform.value">
        <path v-for="(d, i) in marked.outlines" :key="`o${i}`" :d="d" />
        <line v-for="(l, i) in marked.lines" :key="`l${i}`" :x1="l[0]" :y1="l[1]" :x2="l[2]" :y2="l[3]" />
      </g>
      <template v-if="step && !bare">
        <DragHandle
          v-for="h in dragged"
          :key="`${step.id}-${h.field}`"
          :handle="h"
          :values="step"
          :guides="flat.guides"
          :within="within"
          :viewport="viewport"
          :unit="unit"
          :effect="flat.effect"
          @preview="(v) => emit('preview', v)"
          @commit="(v) => emit('commit', v)"
          @type="(t) => (typed = t)"
          @dragged="(p) => (draggedAt = p)"
        />
        <SizeGrips
          v-for="h in dragged.filter((h) => h.sizing || h.turn !== null)"
          :key="`${step.id}-${h.field}-grips`"
          :handle="h"
          :values="step"
          :viewport="viewport"
          :unit="unit"
          @preview="(v) => emit('preview', v)"
          @commit="(v) => emit('commit', v)"
        />
        <PickMarks
          v-if="pick"
          :word="pick.word"
          :candidates="pick.candidates"
          :hovered="hovered"
          :viewport="viewport"
          :unit="unit"
          @toggle="(i) => emit('toggle', i)"
          @hover="(i) => emit('hover', i)"
        />
      </template>
      <DragHandle
        v-for="h in card?.handles ?? []"
        :key="h.field"
        :handle="h"
        :values="card!.values"
        :guides="[]"
        :within="flat.box"
        :viewport="viewport"
        :unit="unit"
        @preview="(v) => emit('cardPreview', v)"
        @commit="(v) => emit('cardCommit', v)"
        @type="(t) => (typed = t)"
      />
      <RulerBars :viewport="viewport" :unit="unit" :origin-x="box.left" :origin-y="box.head" />
    </svg>
    <ViewTools
      v-model:bare="bare"
      v-model:key-shown="keyShown"
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
    <LoupeInset v-if="(finished?.loupe.length && loupeShown) || draggedAt" ref="loupe" :places="finished?.loupe ?? []" :follow="draggedAt" :path="flat.path" :folds="flat.folds" :colour="colour" :unit="unit" :lying="lying" />
    <div class="switches">
      <button v-if="placed" :aria-pressed="layersShown" @click="layersShown = !layersShown">{{ layersShown ? 'Hide the layers' : 'Show the layers' }}</button>
      <button v-if="finished?.loupe.length" :aria-pressed="loupeShown" @click="loupeAsked = !loupeShown">{{ loupeShown ? 'Hide the loupe' : 'Show the loupe' }}</button>
    </div>
    <p v-if="!flat.path" class="nothing soft">Nothing is built yet. Put a blank or a figure first in the strip below.</p>
  </div>
</template>

<style scoped>
.flat {
  position: relative;
  min-width: 0;
  min-height: 0;
  background: var(--surface);
  overflow: hidden;
}
svg {
  display: block;
  width: 100%;
  height: 100%;
  touch-action: none;
  user-select: none;
}
.paper {
  stroke: var(--line-cut);
  stroke-width: 1.6px;
  stroke-linejoin: round;
  vector-effect: non-scaling-stroke;
}
.line {
  fill: none;
  stroke: var(--line-draw);
  stroke-width: 1.4px;
  vector-effect: non-scaling-stroke;
}
.line.stitch {
  stroke-width: 2.4px;
  stroke-linecap: round;
}
.line.score,
.line.perforate {
  stroke: var(--line-fold);
}
.line.cut {
  stroke: var(--line-cut);
  stroke-width: 2.6px;
  stroke-dasharray: 14 2;
}
.before {
  fill: var(--paper-2);
  stroke: var(--ink-3);
  stroke-width: 1px;
  stroke-dasharray: 4 3;
  vector-effect: non-scaling-stroke;
}
.panel text {
  font: 600 13px var(--font);
  fill: var(--ink-1);
  text-anchor: middle;
  paint-order: stroke;
  stroke: rgb(255 253 248 / 65%);
  stroke-width: 4px;
}
.marked path,
.marked line {
  fill: none;
  stroke: currentcolor;
  stroke-width: 3.5px;
  stroke-linecap: round;
  vector-effect: non-scaling-stroke;
  animation: called 0.9s ease-out 2;
}
.marked path {
  fill: currentcolor;
  fill-opacity: 0.22;
}
.error {
  color: var(--error);
}
.warning {
  color: #b98500;
}
.note {
  color: var(--note);
}
@keyframes called {
  from {
    stroke-width: 13px;
    opacity: 0.3;
  }
}
.hatch {
  stroke: var(--copper-dark);
  stroke-width: 1.6px;
}
.lost {
  fill: url('#hatch-lost');
  stroke: var(--copper-dark);
  stroke-width: 1px;
  stroke-dasharray: 2 2;
  vector-effect: non-scaling-stroke;
}
.switches {
  position: absolute;
  right: 10px;
  bottom: 10px;
  display: flex;
  gap: 6px;
}
.switches button {
  padding: 3px 10px;
  border: 1px solid var(--border);
  border-radius: 8px;
  background: var(--surface);
  font-size: 12px;
  cursor: pointer;
}
.told {
  position: absolute;
  left: 34px;
  top: 32px;
  padding: 4px 12px;
  border: 1px solid var(--border);
  border-radius: 8px;
  background: var(--surface);
  font-size: 12.5px;
}
.nothing {
  position: absolute;
  inset: 45% 0 auto;
  text-align: center;
}
</style>
