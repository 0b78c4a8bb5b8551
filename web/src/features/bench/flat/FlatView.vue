<script setup lang="ts">
/** The piece after the step in hand, with rulers, dimension lines, folds and handles. */
import { computed, nextTick, ref, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { StepData, Unit } from '@/shared/api/document'
import type { Artwork } from '@/shared/api/document'
import ArtworkLayers from './ArtworkLayers.vue'
import DimensionLines from './DimensionLines.vue'
import DragHandle from './DragHandle.vue'
import FoldMarks from './FoldMarks.vue'
import LoupeInset from './LoupeInset.vue'
import PickMarks from './PickMarks.vue'
import RulerBars from './RulerBars.vue'
import { useViewport } from './useViewport'

const props = defineProps<{
  flat: Schemas['FlatView']
  step: StepData | null
  unit: Unit
  colour: string
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
}>()

const element = ref<SVGSVGElement | null>(null)
const viewport = useViewport(element)
const box = computed(() => {
  const [left, head, right, foot] = props.flat.box
  return { left, head, right, foot }
})

function fit() {
  viewport.fit(box.value)
}
// the first picture, and every other size of the window, unless somebody has moved the view
let fitted = ''
watch(
  () => [viewport.view.width, viewport.view.height, props.flat.box.join(), props.step?.id] as const,
  async ([width, height, bounds, step]) => {
    if (!bounds || viewport.view.touched) return
    const [left, head, right, foot] = props.flat.box
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

let from: { x: number; y: number } | null = null
function down(event: PointerEvent) {
  if (event.button === 0 || event.button === 1) {
    from = { x: event.clientX, y: event.clientY }
    element.value?.setPointerCapture(event.pointerId)
  }
}
function move(event: PointerEvent) {
  if (!from) return
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
defineExpose({ fit, zoom, stepLoupe })
</script>

<template>
  <div class="flat" data-testid="flat-view">
    <svg
      ref="element"
      role="img"
      :aria-label="`Flat view, ${unit}`"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="from = null"
      @pointercancel="from = null"
      @wheel.prevent="wheel"
    >
      <defs>
        <pattern id="hatch-lost" width="5" height="5" patternUnits="userSpaceOnUse" :patternTransform="`scale(${1 / viewport.view.scale}) rotate(45)`">
          <path d="M0 0V5" class="hatch" />
        </pattern>
      </defs>
      <g :transform="viewport.transform.value">
        <path v-if="flat.before" class="before" :d="flat.before" />
        <path class="paper" data-testid="flat-path" :d="flat.path" :fill="colour" />
        <path v-for="(l, i) in flat.lines" :key="i" class="line" :class="l.how" :d="l.path" />
        <ArtworkLayers v-if="placed && layersShown" :placed="placed.placed" :artwork="placed.artwork" />
      </g>
      <g v-for="p in panels" :key="p.name" class="panel">
        <text :x="p.x" :y="p.y">{{ p.name }}</text>
      </g>
      <path v-if="lost" class="lost" :transform="viewport.transform.value" :d="lost"><title>What the lap costs the figure</title></path>
      <FoldMarks :folds="flat.folds" :ticks="finished?.ticks ?? []" :viewport="viewport" :unit="unit" />
      <DimensionLines :flat="flat" :viewport="viewport" :unit="unit" />
      <g v-if="marked" :key="marked.message" class="marked" :class="marked.severity" :transform="viewport.transform.value">
        <path v-for="(d, i) in marked.outlines" :key="`o${i}`" :d="d" />
        <line v-for="(l, i) in marked.lines" :key="`l${i}`" :x1="l[0]" :y1="l[1]" :x2="l[2]" :y2="l[3]" />
      </g>
      <template v-if="step">
        <DragHandle
          v-for="h in dragged"
          :key="`${step.id}-${h.field}`"
          :handle="h"
          :values="step"
          :guides="flat.guides"
          :within="within"
          :viewport="viewport"
          :unit="unit"
          @preview="(v) => emit('preview', v)"
          @commit="(v) => emit('commit', v)"
        />
        <PickMarks
          v-if="pick"
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
      />
      <RulerBars :viewport="viewport" :unit="unit" :origin-x="box.left" :origin-y="box.head" />
    </svg>
    <div class="zoom">
      <button aria-label="Smaller" title="Smaller" @click="zoom(1 / 1.3)">−</button>
      <button title="Show the whole piece (F)" @click="fit">whole</button>
      <button aria-label="Larger" title="Larger" @click="zoom(1.3)">+</button>
    </div>
    <LoupeInset v-if="finished?.loupe.length && loupeShown" ref="loupe" :places="finished.loupe" :path="flat.path" :folds="flat.folds" :colour="colour" :unit="unit" :lying="lying" />
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
.zoom {
  position: absolute;
  right: 10px;
  top: 32px;
  display: flex;
  border: 1px solid var(--border-strong);
  border-radius: var(--radius);
  overflow: hidden;
  background: var(--surface);
}
.zoom button {
  border: 0;
  background: none;
  padding: 3px 10px;
  cursor: pointer;
  font-size: 12.5px;
}
.zoom button:hover {
  background: var(--chrome-deep);
}
.nothing {
  position: absolute;
  inset: 45% 0 auto;
  text-align: center;
}
</style>
