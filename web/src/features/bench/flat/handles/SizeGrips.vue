<script setup lang="ts">
/**
 * Grips of a thing in hand: at its corners and edges, which size it about the place that it is
 * set by, and one beyond its head, which turns it. Alt holds the steps of the turn off.
 */
import { computed, ref, shallowRef } from 'vue'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import { valueAt } from '@/shared/values'
import type { Viewport } from '../useViewport'
import { gripsOf, type Grip } from './grips'
import type { BoxHandle, Figures } from './handle'
import { byHand } from './snapping'
import { useDrag } from './useDrag'

type Named = readonly (readonly [string, number])[]
const props = defineProps<{ handle: BoxHandle; values: unknown; viewport: Viewport; unit: Unit }>()
const emit = defineEmits<{ preview: [figures: Figures]; commit: [figures: Figures] }>()

const LEAST_MM = 0.5
const STEP_DEG = 15
const NEAR_DEG = 3

const box = computed(() => {
  const [left, head, right, foot] = props.handle.box
  return { left, head, right, foot, cx: (left + right) / 2, cy: (head + foot) / 2 }
})
const grips = computed(() => (props.handle.sizing ? gripsOf(box.value, props.handle.sizing) : []))
const knob = computed(() => {
  const { toX, toY } = props.viewport
  return { x: toX(box.value.cx), y: toY(box.value.head) - 26, from: toY(box.value.head) }
})

const said = ref('')
/** The grip that is taken hold of, null for the knob; with the figures and the pointer as they were. */
const grip = shallowRef<Grip | null>(null)
let before: Figures = {}
let start = { x: 0, y: 0, turn: 0 }

const { on } = useDrag({
  viewport: () => props.viewport,
  preview: (figures) => emit('preview', figures),
  commit: (figures) => emit('commit', figures),
  taken(event) {
    const { sizing, turn } = props.handle
    const all = sizing ? [...sizing.across, ...sizing.down, ...sizing.both] : []
    before = Object.fromEntries(all.map(([name, shown]) => [name, Number(valueAt(props.values, name)) || shown]))
    start = { x: event.clientX, y: event.clientY, turn: turn ?? 0 }
  },
  moved(dx, dy, free, event) {
    const figures = grip.value ? sized(grip.value, dx, dy) : turned(event, free)
    said.value = grip.value
      ? Object.values(figures).map((v) => formatLength(v, props.unit)).join(' × ')
      : `${figures.turn}°`
    return figures
  },
  ended: () => (said.value = ''),
})

function scaled(named: Named, ratio: number): Figures {
  return Object.fromEntries(named.map(([name]) => [name, Math.max(byHand(before[name]! * ratio), LEAST_MM)]))
}

function sized(held: Grip, dx: number, dy: number): Figures {
  const s = props.handle.sizing!
  const [fx, fy] = s.fixed
  const rx = held.across ? Math.max((held.x + dx - fx) / (held.x - fx), 0.01) : 1
  const ry = held.down ? Math.max((held.y + dy - fy) / (held.y - fy), 0.01) : 1
  if (s.both.length) return scaled(s.both, held.across && held.down ? Math.max(rx, ry) : held.across ? rx : ry)
  return { ...(held.across ? scaled(s.across, rx) : {}), ...(held.down ? scaled(s.down, ry) : {}) }
}

function turned(event: PointerEvent, free: boolean): Figures {
  const frame = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect()
  const { toX, toY } = props.viewport
  const [cx, cy] = [toX(box.value.cx), toY(box.value.cy)]
  const angle = (x: number, y: number) => Math.atan2(y - frame.top - cy, x - frame.left - cx)
  const turn = ((angle(event.clientX, event.clientY) - angle(start.x, start.y)) * 180) / Math.PI
  let wished = start.turn + (props.viewport.view.inside ? -turn : turn)
  const step = Math.round(wished / STEP_DEG) * STEP_DEG
  if (!free && Math.abs(step - wished) < NEAR_DEG) wished = step
  wished = ((((wished + 180) % 360) + 360) % 360) - 180
  return { turn: Math.round(wished * 10) / 10 }
}
</script>

<template>
  <g class="grips">
    <template v-if="handle.turn !== null">
      <line :x1="knob.x" :x2="knob.x" :y1="knob.y" :y2="knob.from" />
      <circle class="knob" :cx="knob.x" :cy="knob.y" r="6" data-grip="turn" @pointerdown.capture="grip = null" v-on="on">
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
      @pointerdown.capture="grip = g"
      v-on="on"
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
  font: 600 var(--size-small) var(--figures);
  fill: var(--ink-0);
  text-anchor: middle;
  paint-order: stroke;
  stroke: var(--surface);
  stroke-width: 4px;
}
</style>
