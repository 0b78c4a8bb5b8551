<script setup lang="ts">
/** The hinge as a curve over the lap, with what the lap costs; dragging along it sets the lap. */
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatFigure } from '@/shared/units/figures'
import { formatLength } from '@/shared/units/lengths'

const props = defineProps<{ curve: Schemas['LapCurve']; lap: number; unit: Unit }>()
const emit = defineEmits<{ preview: [lap: number]; commit: [lap: number] }>()
const W = 320
const H = 96
const PAD = { left: 8, right: 8, top: 14, bottom: 18 }

const svg = ref<SVGSVGElement | null>(null)
const dragging = ref(false)
const most = computed(() => props.curve.points.at(-1)?.lap ?? 1)
const highest = computed(() => Math.max(...props.curve.points.map((p) => p.hinge), 1))
const costliest = computed(() => Math.max(...props.curve.points.map((p) => p.loss), 1))
const toX = (lap: number) => PAD.left + (lap / most.value) * (W - PAD.left - PAD.right)
const toY = (share: number) => H - PAD.bottom - share * (H - PAD.top - PAD.bottom)
const line = (value: (p: Schemas['LapPoint']) => number) =>
  props.curve.points.map((p, i) => `${i ? 'L' : 'M'}${toX(p.lap).toFixed(1)} ${toY(value(p)).toFixed(1)}`).join('')
const hinge = computed(() => line((p) => p.hinge / highest.value))
const loss = computed(() => `${line((p) => p.loss / costliest.value)}L${toX(most.value)} ${toY(0)}L${toX(0)} ${toY(0)}Z`)

/** Hinge and loss at a lap, between the points of the curve. */
const here = computed(() => {
  const points = props.curve.points
  const i = Math.max(1, points.findIndex((p) => p.lap >= props.lap))
  const [a, b] = [points[i - 1] ?? points[0]!, points[i] ?? points.at(-1)!]
  const share = b.lap > a.lap ? Math.min(Math.max((props.lap - a.lap) / (b.lap - a.lap), 0), 1) : 0
  const exact = Math.abs(props.lap - props.curve.lap) < 1e-9
  return {
    hinge: exact ? props.curve.hinge : a.hinge + (b.hinge - a.hinge) * share,
    loss: exact ? props.curve.loss : a.loss + (b.loss - a.loss) * share,
  }
})
const say = (mm: number) => formatLength(mm, props.unit)

function lapAt(event: PointerEvent): number {
  const box = svg.value!.getBoundingClientRect()
  const x = ((event.clientX - box.left) / box.width) * W
  const lap = ((x - PAD.left) / (W - PAD.left - PAD.right)) * most.value
  const step = props.unit === 'in' ? 25.4 / 64 : 0.1
  return Number((Math.round(Math.min(Math.max(lap, 0), most.value) / step) * step).toFixed(4))
}
function down(event: PointerEvent) {
  dragging.value = true
  svg.value?.setPointerCapture(event.pointerId)
  emit('preview', lapAt(event))
}
function move(event: PointerEvent) {
  if (dragging.value) emit('preview', lapAt(event))
}
function up(event: PointerEvent) {
  if (!dragging.value) return
  dragging.value = false
  emit('commit', lapAt(event))
}
function key(event: KeyboardEvent) {
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  const step = props.unit === 'in' ? 25.4 / 64 : event.shiftKey ? 1 : 0.1
  emit('commit', Number(Math.min(Math.max(props.lap + by * step, 0), most.value).toFixed(4)))
}
</script>

<template>
  <figure class="lap-curve">
    <figcaption>
      <span>{{ $t('Hinge') }} <strong class="figure">{{ say(here.hinge) }}</strong>
        <span v-if="Math.abs(curve.finished - curve.hinge) > 0.01" class="soft" :title="$t('What later steps weld on and take away counts')"> {{ $t('{finished} in the end', { finished: say(curve.finished) }) }}</span>
      </span>
      <span class="loss">{{ $t('lost of each half') }} <strong class="figure">{{ formatFigure(here.loss, 'mm2', unit) }}</strong></span>
    </figcaption>
    <svg
      ref="svg"
      :viewBox="`0 0 ${W} ${H}`"
      role="slider"
      tabindex="0"
      :aria-label="$t('Lap along the hinge curve')"
      :aria-valuenow="lap"
      aria-valuemin="0"
      :aria-valuemax="most"
      :aria-valuetext="$t('lap {lap}, hinge {hinge}', { lap: say(lap), hinge: say(here.hinge) })"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="dragging = false"
      @keydown="key"
    >
      <path class="cost" :d="loss" />
      <path class="axis" :d="`M${PAD.left} ${H - PAD.bottom}H${W - PAD.right}`" />
      <path class="hinge" :d="hinge" />
      <line class="at" :x1="toX(Math.min(lap, most))" :x2="toX(Math.min(lap, most))" :y1="PAD.top - 8" :y2="H - PAD.bottom" />
      <circle class="dot" :cx="toX(Math.min(lap, most))" :cy="toY(here.hinge / highest)" r="5" />
      <text :x="PAD.left" :y="H - 5">{{ $t('lap 0') }}</text>
      <text :x="W - PAD.right" :y="H - 5" text-anchor="end">{{ say(most) }}</text>
      <text :x="PAD.left + 2" :y="PAD.top - 3">{{ say(highest) }}</text>
    </svg>
  </figure>
</template>

<style scoped>
.lap-curve {
  margin: 0;
}
figcaption {
  display: flex;
  justify-content: space-between;
  font-size: var(--size-small);
}
.loss {
  color: var(--copper-dark);
}
svg {
  display: block;
  width: 100%;
  cursor: ew-resize;
  touch-action: none;
  background: var(--surface);
  border: 1px solid var(--border);
  border-radius: 6px;
}
.axis {
  stroke: var(--ink-3);
  fill: none;
}
.cost {
  fill: var(--copper-pale);
}
.hinge {
  fill: none;
  stroke: var(--line-fold);
  stroke-width: 2;
}
.at {
  stroke: var(--ink-0);
  stroke-dasharray: 2 2;
}
.dot {
  fill: var(--accent);
  stroke: var(--paper-0);
  stroke-width: 1.5;
}
text {
  font: var(--size-figure) var(--figures);
  fill: var(--text-soft);
}
</style>
