<script setup lang="ts">
/**
 * A handle of the step in hand. It stands where the values say at once, wherever the computed
 * picture still is; dragging snaps to guides (Alt holds that off), arrow keys nudge.
 */
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength, nudge } from '@/shared/units/lengths'
import { byHand, snap, type Snap } from './snapping'
import type { Viewport } from './useViewport'

type Values = Record<string, number>
const props = defineProps<{
  handle: Schemas['HandleView']
  values: Readonly<Record<string, unknown>>
  guides: readonly Schemas['Guide'][]
  within: readonly number[]
  viewport: Viewport
  unit: Unit
}>()
const emit = defineEmits<{ preview: [values: Values]; commit: [values: Values] }>()

const REACH_PX = 7
const dragging = ref(false)
const snaps = ref<Snap[]>([])
let latest: Values | null = null
let start = { x: 0, y: 0, value: 0, valueY: 0 }

const number = (name: string, fallback: number) => {
  const value = props.values[name]
  return typeof value === 'number' ? value : fallback
}
const value = computed(() => number(props.handle.field, props.handle.value))
const valueY = computed(() => number(props.handle.field_y, props.handle.value_y))
/** How far the values have run ahead of the computed picture. */
const ahead = computed(() => ({ x: value.value - props.handle.value, y: valueY.value - props.handle.value_y }))
const at = computed(() => props.handle.origin + value.value / props.handle.factor)
const box = computed(() => {
  const [left, head, right, foot] = props.handle.box
  const { x, y } = ahead.value
  return { left: left + x, head: head + y, right: right + x, foot: foot + y }
})
const upright = computed(() => props.handle.axis === 'x')
const px = computed(() => {
  const { toX, toY } = props.viewport
  const b = box.value
  return { left: toX(b.left), head: toY(b.head), right: toX(b.right), foot: toY(b.foot) }
})
const say = (mm: number) => formatLength(mm, props.unit)
const label = computed(() =>
  props.handle.shape === 'line'
    ? `${props.handle.word} ${say(value.value)}`
    : `→ ${say(value.value)}   ↓ ${say(valueY.value)}`,
)
const bubble = computed(() => {
  const { toX, toY, view } = props.viewport
  const width = label.value.length * 7.4 + 18
  let [x, y] = [0, 0]
  if (props.handle.shape === 'box') [x, y] = [px.value.right + 8, px.value.head - 14]
  else if (upright.value) [x, y] = [toX(at.value) + 10, 58]
  else [x, y] = [30, toY(at.value) - 34]
  return { x: Math.min(Math.max(x, 28), view.width - width - 4), y: Math.max(y, 28), width }
})
/** Gaps to the edges of the panel that it is on, while it is moved. */
const gaps = computed(() => {
  const [left, head, right, foot] = props.within as [number, number, number, number]
  const b = box.value
  const [cx, cy] = [(px.value.left + px.value.right) / 2, (px.value.head + px.value.foot) / 2]
  const { toX, toY } = props.viewport
  return [
    { d: `M${toX(left)} ${cy}H${px.value.left}`, x: (toX(left) + px.value.left) / 2, y: cy, mm: b.left - left },
    { d: `M${px.value.right} ${cy}H${toX(right)}`, x: (toX(right) + px.value.right) / 2, y: cy, mm: right - b.right },
    { d: `M${cx} ${toY(head)}V${px.value.head}`, x: cx, y: (toY(head) + px.value.head) / 2, mm: b.head - head },
    { d: `M${cx} ${px.value.foot}V${toY(foot)}`, x: cx, y: (toY(foot) + px.value.foot) / 2, mm: foot - b.foot },
  ]
})

function moved(dx: number, dy: number, free: boolean): Values {
  const reach = free ? 0 : REACH_PX / props.viewport.view.scale
  const h = props.handle
  if (h.shape === 'line') {
    const wished = h.origin + start.value / h.factor + (upright.value ? dx : dy)
    const hit = free ? null : snap(upright.value ? 'x' : 'y', [wished], props.guides, reach)
    snaps.value = hit ? [hit] : []
    const found = ((hit ? hit.guide.at : wished) - h.origin) * h.factor
    const least = h.least ?? -Infinity
    return { [h.field]: Math.max(hit ? found : byHand(found), least) }
  }
  const [left, head, right, foot] = h.box
  const sx = start.value + dx - h.value
  const sy = start.valueY + dy - h.value_y
  const hitX = free ? null : snap('x', [left + sx, (left + right) / 2 + sx, right + sx], props.guides, reach)
  const hitY = free ? null : snap('y', [head + sy, (head + foot) / 2 + sy, foot + sy], props.guides, reach)
  snaps.value = [hitX, hitY].filter((s) => s !== null)
  const x = start.value + dx + (hitX?.by ?? 0)
  const y = start.valueY + dy + (hitY?.by ?? 0)
  const clean = (v: number, hit: Snap | null) => (hit ? Math.round(v * 1e6) / 1e6 : byHand(v))
  return { [h.field]: clean(x, hitX), [h.field_y]: clean(y, hitY) }
}

function down(event: PointerEvent) {
  if (event.button !== 0) return
  event.stopPropagation()
  const target = event.currentTarget as SVGElement
  target.setPointerCapture(event.pointerId)
  target.focus()
  start = { x: event.clientX, y: event.clientY, value: value.value, valueY: valueY.value }
  latest = null
  dragging.value = true
}

function move(event: PointerEvent) {
  if (!dragging.value) return
  const { scale } = props.viewport.view
  latest = moved((event.clientX - start.x) / scale, (event.clientY - start.y) / scale, event.altKey)
  emit('preview', latest)
}

function up() {
  if (!dragging.value) return
  dragging.value = false
  snaps.value = []
  if (latest) emit('commit', latest)
  latest = null
}

function key(event: KeyboardEvent) {
  const across = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0
  const down = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
  if (!across && !down) return
  const by = nudge(props.unit, event.shiftKey)
  const h = props.handle
  const round = (v: number) => Math.round(v * 1e6) / 1e6
  if (h.shape === 'line') {
    const direction = upright.value ? across : down
    if (!direction) return
    // the value changes by the step; the line follows to the side that was pressed
    const next = value.value + direction * Math.sign(h.factor) * by
    latest = { [h.field]: Math.max(round(next), h.least ?? -Infinity) }
  } else {
    latest = { [h.field]: round(value.value + across * by), [h.field_y]: round(valueY.value + down * by) }
  }
  event.preventDefault()
  event.stopPropagation()
  emit('preview', latest)
}

function keyUp(event: KeyboardEvent) {
  if (event.key.startsWith('Arrow') && latest && !dragging.value) {
    emit('commit', latest)
    latest = null
  }
}
</script>

<template>
  <g>
    <g v-for="(s, i) in snaps" :key="i" class="snap">
      <line v-if="s.guide.axis === 'x'" :x1="viewport.toX(s.guide.at)" :x2="viewport.toX(s.guide.at)" y1="24" :y2="viewport.view.height" />
      <line v-else :y1="viewport.toY(s.guide.at)" :y2="viewport.toY(s.guide.at)" x1="24" :x2="viewport.view.width" />
      <text v-if="s.guide.axis === 'x'" :x="viewport.toX(s.guide.at) + 4" :y="viewport.view.height - 8">{{ s.guide.word }}</text>
      <text v-else :x="viewport.view.width - 8" :y="viewport.toY(s.guide.at) - 4" text-anchor="end">{{ s.guide.word }}</text>
    </g>
    <g v-if="dragging && handle.shape === 'box'" class="gaps">
      <template v-for="(g, i) in gaps" :key="i">
        <path :d="g.d" />
        <text :x="g.x" :y="g.y - 4">{{ formatLength(g.mm, unit, false) }}</text>
      </template>
    </g>
    <g
      class="handle"
      :class="[handle.shape, upright ? 'upright' : 'level', { dragging }]"
      tabindex="0"
      role="slider"
      :aria-label="`${handle.word}, move with the arrow keys`"
      :aria-valuetext="label"
      :aria-valuenow="value"
      :data-handle="handle.field"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
      @lostpointercapture="up"
      @keydown="key"
      @keyup="keyUp"
      @blur="latest && !dragging && emit('commit', latest)"
    >
      <template v-if="handle.shape === 'line'">
        <template v-if="upright">
          <line class="grab" :x1="viewport.toX(at)" :x2="viewport.toX(at)" y1="24" :y2="viewport.view.height" />
          <line class="seen" :x1="viewport.toX(at)" :x2="viewport.toX(at)" y1="24" :y2="viewport.view.height" />
          <rect class="grip" :x="viewport.toX(at) - 6" :y="viewport.view.height / 2 - 13" width="12" height="26" rx="4" />
        </template>
        <template v-else>
          <line class="grab" :y1="viewport.toY(at)" :y2="viewport.toY(at)" x1="24" :x2="viewport.view.width" />
          <line class="seen" :y1="viewport.toY(at)" :y2="viewport.toY(at)" x1="24" :x2="viewport.view.width" />
          <rect class="grip" :y="viewport.toY(at) - 6" :x="viewport.view.width / 2 - 13" width="26" height="12" rx="4" />
        </template>
      </template>
      <template v-else>
        <path
          class="outline"
          :d="handle.outline"
          :transform="`${viewport.transform.value} translate(${ahead.x} ${ahead.y})`"
        />
        <rect class="frame" :x="px.left" :y="px.head" :width="Math.max(px.right - px.left, 1)" :height="Math.max(px.foot - px.head, 1)" />
        <path
          class="cross"
          :d="`M${(px.left + px.right) / 2 - 7} ${(px.head + px.foot) / 2}h14m-7 -7v14`"
        />
      </template>
    </g>
    <g class="bubble" :transform="`translate(${bubble.x} ${bubble.y})`">
      <rect :width="bubble.width" height="24" rx="12" />
      <text :x="bubble.width / 2" y="16">{{ label }}</text>
    </g>
  </g>
</template>

<style scoped>
.handle {
  outline: none;
}
.handle.upright.line {
  cursor: ew-resize;
}
.handle.level.line {
  cursor: ns-resize;
}
.handle.box {
  cursor: move;
}
.grab {
  stroke: transparent;
  stroke-width: 14;
}
.seen {
  stroke: var(--accent);
  stroke-width: 1.3;
  stroke-dasharray: 2 4;
}
.grip {
  fill: var(--surface);
  stroke: var(--accent);
  stroke-width: 1.6;
}
.handle:focus-visible .grip,
.handle:focus-visible .frame,
.dragging .grip {
  stroke-width: 2.6;
}
.outline {
  fill: rgb(169 89 26 / 10%);
  stroke: var(--accent);
  stroke-width: 1.4px;
  vector-effect: non-scaling-stroke;
}
.frame {
  fill: transparent;
  stroke: var(--accent);
  stroke-dasharray: 3 3;
}
.cross {
  stroke: var(--accent);
  stroke-width: 1.6;
}
.snap line {
  stroke: var(--line-guide);
}
.snap text,
.gaps text {
  font: 11px var(--figures);
  fill: var(--line-guide);
  paint-order: stroke;
  stroke: var(--surface);
  stroke-width: 4px;
}
.gaps text {
  fill: var(--ink-1);
  text-anchor: middle;
}
.gaps path {
  stroke: var(--ink-3);
  fill: none;
}
.bubble rect {
  fill: var(--ink-0);
}
.bubble text {
  font: 600 12px var(--figures);
  fill: var(--paper-0);
  text-anchor: middle;
  white-space: pre;
}
.bubble {
  pointer-events: none;
}
</style>
