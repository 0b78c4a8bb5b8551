<script setup lang="ts">
/**
 * A handle of the step in hand; its figures can be typed over. It stands where the values say at once, wherever the computed
 * picture still is; dragging snaps to guides (Alt holds that off), arrow keys nudge.
 */
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength, nudge } from '@/shared/units/lengths'
import { valueAt } from '../edits'
import { byHand, equalMargins, snap, type Snap } from './snapping'
import type { Typed } from './typed'
import type { Viewport } from './useViewport'

type Values = Record<string, number>
const props = defineProps<{
  handle: Schemas['HandleView']
  values: Readonly<Record<string, unknown>>
  guides: readonly Schemas['Guide'][]
  within: readonly number[]
  viewport: Viewport
  unit: Unit
  /** What the step in hand makes of the closed card. */
  effect?: Schemas['EffectView'] | null
}>()
const emit = defineEmits<{
  preview: [values: Values]
  commit: [values: Values]
  type: [typed: Typed]
  /** Where it is dragged, in mm; null when it is let go. */
  dragged: [place: { x: number; y: number } | null]
}>()

const REACH_PX = 7
const ARROWS: Record<string, string> = { dx: '→', dy: '↓' }
const dragging = ref(false)
const snaps = ref<Snap[]>([])
let latest: Values | null = null
let start = { x: 0, y: 0, value: 0, valueY: 0 }

const number = (name: string, fallback: number) => {
  const value = valueAt(props.values, name)
  return typeof value === 'number' ? value : fallback
}
const value = computed(() => number(props.handle.field, props.handle.value))
const valueY = computed(() => number(props.handle.field_y, props.handle.value_y))
/** How far the values have run ahead of the computed picture. */
const ahead = computed(() =>
  props.handle.shape === 'around'
    ? { x: 0, y: 0 }
    : {
        x: (value.value - props.handle.value) / props.handle.factor,
        y: (valueY.value - props.handle.value_y) / props.handle.factor_y,
      },
)
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
  const [left, right] = [toX(b.left), toX(b.right)].sort((a, b_) => a - b_) as [number, number]
  return { left, head: toY(b.head), right, foot: toY(b.foot) }
})
const say = (mm: number) => formatLength(mm, props.unit)
const label = computed(() =>
  props.handle.shape === 'around'
    ? `${props.handle.word} ${value.value.toFixed(1)}°`
    : props.handle.shape === 'line'
    ? `${props.handle.word} ${say(value.value)}`
    : `${ARROWS[props.handle.field] ?? props.handle.field} ${say(value.value)}   ` +
      `${ARROWS[props.handle.field_y] ?? props.handle.field_y} ${say(valueY.value)}`,
)
const outcome = computed(() => {
  const e = props.effect
  if (!e) return ''
  const closed = e.closed.map((v) => formatLength(v, props.unit, false)).join(' × ')
  return `closed ${closed}` + (e.room === null ? '' : `, room ${say(e.room)}`)
})
const bubble = computed(() => {
  const { toX, toY, view } = props.viewport
  const width = Math.max(label.value.length * 7.4, outcome.value.length * 6.9) + 18
  let [x, y] = [0, 0]
  if (props.handle.shape !== 'line') [x, y] = [px.value.right + 8, px.value.head - 14]
  else if (upright.value) [x, y] = [toX(at.value) + 10, 58]
  else [x, y] = [30, toY(at.value) - 34]
  return { x: Math.min(Math.max(x, 28), view.width - width - 4), y: Math.max(y, 28), width }
})
/** Gaps to the edges of the panel that it is on, while it is moved. */
const gaps = computed(() => {
  const [left, head, right, foot] = props.within as [number, number, number, number]
  const b = box.value
  const { toX, toY } = props.viewport
  const [cx, cy] = [(px.value.left + px.value.right) / 2, (px.value.head + px.value.foot) / 2]
  const level = (side: string, from: number, to: number, mm: number, sign: number) => ({
    side, axis: 'x' as const, sign, mm, d: `M${toX(from)} ${cy}H${toX(to)}`, x: (toX(from) + toX(to)) / 2, y: cy,
  })
  const upright = (side: string, from: number, to: number, mm: number, sign: number) => ({
    side, axis: 'y' as const, sign, mm, d: `M${cx} ${toY(from)}V${toY(to)}`, x: cx, y: (toY(from) + toY(to)) / 2,
  })
  return [
    level('left', left, b.left, b.left - left, 1),
    level('right', b.right, right, right - b.right, -1),
    // beside the knob that turns it
    { ...upright('head', head, b.head, b.head - head, 1), x: cx + (props.handle.turn === null ? 0 : 34) },
    upright('foot', b.foot, foot, foot - b.foot, -1),
  ]
})
type Gap = (typeof gaps.value)[number]

/** A gap typed over moves the thing to where it has that gap. */
function typeGap(gap: Gap) {
  const h = props.handle
  const [field, now, factor] =
    gap.axis === 'x' ? [h.field, value.value, h.factor] : [h.field_y, valueY.value, h.factor_y]
  emit('type', {
    x: gap.x,
    y: gap.y,
    value: gap.mm,
    label: `From the ${gap.side}`,
    take: (mm) => emit('commit', { [field]: tidy(now + gap.sign * (mm - gap.mm) * factor) }),
  })
}
function typeValue() {
  const h = props.handle
  if (h.shape !== 'line') return
  const { x, y, width } = bubble.value
  const take = (mm: number) => emit('commit', { [h.field]: Math.max(mm, h.least ?? -Infinity) })
  emit('type', { x: x + width / 2, y: y + 12, value: value.value, label: h.word, take })
}
const tidy = (v: number) => Math.round(v * 1e6) / 1e6

function moved(dx: number, dy: number, free: boolean): Values {
  const reach = free ? 0 : REACH_PX / props.viewport.view.scale
  const h = props.handle
  if (h.shape === 'around') {
    const [left, head] = h.box as [number, number, number, number]
    const angle = Math.atan2(head + 0.5 + dy - h.centre[1], left + 0.5 + dx - h.centre[0])
    return { [h.field]: Math.round((angle * 1800) / Math.PI) / 10 }
  }
  if (h.shape === 'line') {
    const wished = h.origin + start.value / h.factor + (upright.value ? dx : dy)
    const hit = free ? null : snap(upright.value ? 'x' : 'y', [wished], props.guides, reach)
    snaps.value = hit ? [hit] : []
    const found = ((hit ? hit.guide.at : wished) - h.origin) * h.factor
    const least = h.least ?? -Infinity
    return { [h.field]: Math.max(hit ? found : byHand(found), least) }
  }
  const [left, head, right, foot] = h.box
  const sx = (start.value - h.value) / h.factor + dx
  const sy = (start.valueY - h.value_y) / h.factor_y + dy
  const at = { left: left + sx, right: right + sx, head: head + sy, foot: foot + sy }
  const guides = [...props.guides, ...equalMargins(at, props.within)]
  const hitX = free ? null : snap('x', [at.left, (at.left + at.right) / 2, at.right], guides, reach)
  const hitY = free ? null : snap('y', [at.head, (at.head + at.foot) / 2, at.foot], guides, reach)
  snaps.value = [hitX, hitY].filter((s) => s !== null)
  const x = start.value + (dx + (hitX?.by ?? 0)) * h.factor
  const y = start.valueY + (dy + (hitY?.by ?? 0)) * h.factor_y
  const clean = (v: number, hit: Snap | null, least: number | null) =>
    Math.max(hit ? tidy(v) : byHand(v), least ?? -Infinity)
  return { [h.field]: clean(x, hitX, h.least), [h.field_y]: clean(y, hitY, h.least_y) }
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
  const { alongX, alongY } = props.viewport
  latest = moved(alongX(event.clientX - start.x), alongY(event.clientY - start.y), event.altKey)
  emit('preview', latest)
  const b = box.value
  if (props.handle.shape === 'box') emit('dragged', { x: (b.left + b.right) / 2, y: (b.head + b.foot) / 2 })
}

function up() {
  if (!dragging.value) return
  dragging.value = false
  snaps.value = []
  if (latest) emit('commit', latest)
  latest = null
  emit('dragged', null)
}

function key(event: KeyboardEvent) {
  const across = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0
  const down = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
  if (!across && !down) return
  const by = nudge(props.unit, event.shiftKey)
  const h = props.handle
  const turned = props.viewport.view.inside ? -1 : 1
  if (h.shape === 'around') latest = { [h.field]: tidy(value.value + (across || down) * (event.shiftKey ? 0.1 : 1)) }
  else if (h.shape === 'line') {
    const direction = upright.value ? across * turned : down
    if (!direction) return
    // the value changes by the step; the line follows to the side that was pressed
    const next = value.value + direction * Math.sign(h.factor) * by
    latest = { [h.field]: Math.max(tidy(next), h.least ?? -Infinity) }
  } else {
    const [x, y] = [value.value + across * turned * by * h.factor, valueY.value + down * by * h.factor_y]
    latest = {
      [h.field]: Math.max(tidy(x), h.least ?? -Infinity),
      [h.field_y]: Math.max(tidy(y), h.least_y ?? -Infinity),
    }
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
    <g v-if="handle.shape === 'box'" class="gaps">
      <template v-for="g in gaps" :key="g.side">
        <path :d="g.d" />
        <text
          :x="g.x"
          :y="g.y - 4"
          role="button"
          tabindex="0"
          :aria-label="`From the ${g.side}: type another figure`"
          :data-gap="g.side"
          @pointerdown.stop
          @click="typeGap(g)"
          @keydown.enter.prevent="typeGap(g)"
        >
          {{ formatLength(g.mm, unit, false) }}
        </text>
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
      <circle v-else-if="handle.shape === 'around'" class="grip" :cx="(px.left + px.right) / 2" :cy="(px.head + px.foot) / 2" r="6" />
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
    <g
      v-if="handle.shape !== 'around' || dragging"
      class="bubble"
      :class="{ typed: handle.shape === 'line' }"
      :transform="`translate(${bubble.x} ${bubble.y})`"
      @pointerdown.stop
      @click="typeValue"
    >
      <rect :width="bubble.width" :height="outcome ? 42 : 24" rx="12" />
      <text :x="bubble.width / 2" y="16">{{ label }}</text>
      <text v-if="outcome" class="outcome" :class="{ over: effect!.room !== null && effect!.room < 0 }" :x="bubble.width / 2" y="34">{{ outcome }}</text>
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
.handle.around {
  cursor: grab;
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
.bubble.typed {
  pointer-events: auto;
  cursor: text;
}
.bubble .outcome {
  font-weight: 400;
  font-size: 11.5px;
}
.bubble .over {
  fill: #ffc4ae;
  font-weight: 700;
}
.gaps text {
  cursor: text;
}
.gaps text:focus-visible {
  text-decoration: underline;
  outline: none;
}
</style>
