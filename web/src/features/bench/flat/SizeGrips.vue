<script setup lang="ts">
/**
 * Grips of a thing in hand: at its corners and edges, which size it about the place that it is
 * set by, and one beyond its head, which turns it. Alt holds the steps of the turn off.
 */
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import { valueAt } from '../edits'
import { byHand } from './snapping'
import type { Viewport } from './useViewport'

type Values = Record<string, number>
type Named = readonly (readonly [string, number])[]
const props = defineProps<{
  handle: Schemas['HandleView']
  values: Readonly<Record<string, unknown>>
  viewport: Viewport
  unit: Unit
}>()
const emit = defineEmits<{ preview: [values: Values]; commit: [values: Values] }>()

const LEAST_MM = 0.5
const STEP_DEG = 15
const NEAR_DEG = 3

const box = computed(() => {
  const [left, head, right, foot] = props.handle.box as [number, number, number, number]
  return { left, head, right, foot, cx: (left + right) / 2, cy: (head + foot) / 2 }
})
const fixed = computed(() => props.handle.sizing?.fixed ?? [box.value.cx, box.value.cy])
interface Grip {
  name: string
  x: number
  y: number
  across: boolean
  down: boolean
}
/** Those that lie away from the fixed place in the way in which they size it. */
const grips = computed<Grip[]>(() => {
  const s = props.handle.sizing
  if (!s) return []
  const b = box.value
  const [fx, fy] = fixed.value as [number, number]
  const found: Grip[] = []
  const offX = (x: number) => Math.abs(x - fx) > 0.4 * (b.right - b.left)
  const offY = (y: number) => Math.abs(y - fy) > 0.4 * (b.foot - b.head)
  const xs = [['left', b.left], ['right', b.right]] as const
  const ys = [['head', b.head], ['foot', b.foot]] as const
  for (const [sx, x] of xs) for (const [sy, y] of ys) {
    if (offX(x) && offY(y)) found.push({ name: `${sy}-${sx}`, x, y, across: true, down: true })
  }
  if (s.across.length) for (const [sx, x] of xs) if (offX(x)) found.push({ name: sx, x, y: b.cy, across: true, down: false })
  if (s.down.length) for (const [sy, y] of ys) if (offY(y)) found.push({ name: sy, x: b.cx, y, across: false, down: true })
  // set by its middle at one edge: nothing lies away both ways
  if (!found.length) for (const [sx, x] of xs) if (offX(x)) found.push({ name: sx, x, y: b.cy, across: true, down: false })
  if (!found.length) for (const [sy, y] of ys) if (offY(y)) found.push({ name: sy, x: b.cx, y, across: false, down: true })
  return found
})
const knob = computed(() => {
  const { toX, toY } = props.viewport
  return { x: toX(box.value.cx), y: toY(box.value.head) - 26, from: toY(box.value.head) }
})

const said = ref('')
let held: { grip: Grip | null; x: number; y: number; turn: number; values: Values } | null = null
let latest: Values | null = null

function down(event: PointerEvent, grip: Grip | null) {
  if (event.button !== 0) return
  event.stopPropagation()
  ;(event.currentTarget as SVGElement).setPointerCapture(event.pointerId)
  const { sizing } = props.handle
  const all = sizing ? [...sizing.across, ...sizing.down, ...sizing.both] : []
  const now = Object.fromEntries(all.map(([name, shown]) => [name, Number(valueAt(props.values, name)) || shown]))
  held = { grip, x: event.clientX, y: event.clientY, turn: props.handle.turn ?? 0, values: now }
  latest = null
}

function scaled(named: Named, ratio: number): Values {
  return Object.fromEntries(named.map(([name]) => [name, Math.max(byHand(held!.values[name]! * ratio), LEAST_MM)]))
}

function sized(grip: Grip, dx: number, dy: number): Values {
  const s = props.handle.sizing!
  const [fx, fy] = fixed.value as [number, number]
  const rx = grip.across ? Math.max((grip.x + dx - fx) / (grip.x - fx), 0.01) : 1
  const ry = grip.down ? Math.max((grip.y + dy - fy) / (grip.y - fy), 0.01) : 1
  if (s.both.length) return scaled(s.both, grip.across && grip.down ? Math.max(rx, ry) : grip.across ? rx : ry)
  return { ...(grip.across ? scaled(s.across, rx) : {}), ...(grip.down ? scaled(s.down, ry) : {}) }
}

function turned(event: PointerEvent): Values {
  const frame = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect()
  const { toX, toY } = props.viewport
  const [cx, cy] = [toX(box.value.cx), toY(box.value.cy)]
  const angle = (x: number, y: number) => Math.atan2(y - frame.top - cy, x - frame.left - cx)
  const turn = ((angle(event.clientX, event.clientY) - angle(held!.x, held!.y)) * 180) / Math.PI
  let wished = held!.turn + (props.viewport.view.inside ? -turn : turn)
  const step = Math.round(wished / STEP_DEG) * STEP_DEG
  if (!event.altKey && Math.abs(step - wished) < NEAR_DEG) wished = step
  wished = ((((wished + 180) % 360) + 360) % 360) - 180
  return { turn: Math.round(wished * 10) / 10 }
}

function move(event: PointerEvent) {
  if (!held) return
  const { alongX, alongY } = props.viewport
  latest = held.grip
    ? sized(held.grip, alongX(event.clientX - held.x), alongY(event.clientY - held.y))
    : turned(event)
  said.value = held.grip
    ? Object.values(latest).map((v) => formatLength(v, props.unit)).join(' × ')
    : `${latest.turn}°`
  emit('preview', latest)
}

function up() {
  if (!held) return
  held = null
  said.value = ''
  if (latest) emit('commit', latest)
  latest = null
}
</script>

<template>
  <g class="grips">
    <template v-if="handle.turn !== null">
      <line :x1="knob.x" :x2="knob.x" :y1="knob.y" :y2="knob.from" />
      <circle
        class="knob"
        :cx="knob.x"
        :cy="knob.y"
        r="6"
        data-grip="turn"
        @pointerdown="(e) => down(e, null)"
        @pointermove="move"
        @pointerup="up"
        @pointercancel="up"
      >
        <title>Turn it</title>
      </circle>
    </template>
    <rect
      v-for="g in grips"
      :key="g.name"
      :x="viewport.toX(g.x) - 5"
      :y="viewport.toY(g.y) - 5"
      width="10"
      height="10"
      rx="2"
      :class="g.across && g.down ? 'corner' : g.across ? 'across' : 'down'"
      :data-grip="g.name"
      @pointerdown="(e) => down(e, g)"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
    >
      <title>Size it</title>
    </rect>
    <text v-if="said" :x="viewport.toX(box.cx)" :y="viewport.toY(box.foot) + 22">{{ said }}</text>
  </g>
</template>

<style scoped>
rect,
.knob {
  fill: var(--surface);
  stroke: var(--accent);
  stroke-width: 1.6;
}
line {
  stroke: var(--accent);
}
.corner {
  cursor: nwse-resize;
}
.across {
  cursor: ew-resize;
}
.down {
  cursor: ns-resize;
}
.knob {
  cursor: grab;
}
text {
  font: 600 12px var(--figures);
  fill: var(--ink-0);
  text-anchor: middle;
  paint-order: stroke;
  stroke: var(--surface);
  stroke-width: 4px;
}
</style>
