<script setup lang="ts">
/**
 * Grips of a thing in hand: at its corners and edges, which size it about the place that it is
 * set by, and one beyond its head, which turns it. Edges snap to guides, the turn to steps; Alt
 * holds both off.
 */
import { computed, ref, shallowRef } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import { valueAt } from '@/shared/values'
import { t } from '@/shared/words'
import type { Typed } from '../typed'
import type { Viewport } from '../useViewport'
import { gripsOf, type Grip } from './grips'
import { tidy, type BoxHandle, type Figures } from './handle'
import { byHand, snap, type Snap } from './snapping'
import SnapLines from './SnapLines.vue'
import { useDrag } from './useDrag'

type Named = readonly (readonly [string, number])[]
const props = defineProps<{
  handle: BoxHandle
  values: unknown
  guides: readonly Schemas['Guide'][]
  within: readonly number[]
  viewport: Viewport
  unit: Unit
}>()
const emit = defineEmits<{ preview: [figures: Figures]; commit: [figures: Figures]; type: [typed: Typed] }>()

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

const REACH_PX = 7
const snaps = ref<Snap[]>([])
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
    snaps.value = []
    const figures = grip.value ? sized(grip.value, ...snapped(grip.value, dx, dy, free)) : turned(event, free)
    said.value = grip.value
      ? Object.values(figures).map((v) => formatLength(v, props.unit)).join(' × ')
      : `${figures.turn}°`
    return figures
  },
  typed(begun) {
    const place = { x: props.viewport.toX(box.value.cx), y: props.viewport.toY(box.value.foot) + 22 }
    if (!grip.value) return emit('type', { ...place, value: props.handle.turn ?? 0, label: t('Turned by'), begun, degrees: true, take: (turn) => emit('commit', { turn }) })
    const s = props.handle.sizing!
    const named = s.both.length ? s.both : grip.value.across ? s.across : s.down
    const [name] = named[0]!
    const take = (mm: number) => emit('commit', scaled(named, mm / before[name]!))
    emit('type', { ...place, value: before[name]!, label: grip.value.down && !grip.value.across ? t('Height') : t('Width'), begun, take })
  },
  ended() {
    said.value = ''
    snaps.value = []
  },
})

function scaled(named: Named, ratio: number): Figures {
  return Object.fromEntries(named.map(([name]) => [name, Math.max(snaps.value.length ? tidy(before[name]! * ratio) : byHand(before[name]! * ratio), LEAST_MM)]))
}

/** How far the edges in hand go, with those that come near a guide on it. */
function snapped(held: Grip, dx: number, dy: number, free: boolean): [number, number] {
  if (free) return [dx, dy]
  const reach = REACH_PX / props.viewport.view.scale
  const hit = (axis: 'x' | 'y', moves: boolean, place: number) => (moves ? snap(axis, [place], props.guides, reach) : null)
  let [x, y] = [hit('x', held.across, held.x + dx), hit('y', held.down, held.y + dy)]
  // in proportion one way alone decides
  if (props.handle.sizing!.both.length && x && y) [x, y] = Math.abs(x.by) <= Math.abs(y.by) ? [x, null] : [null, y]
  snaps.value = [x, y].filter((s) => s !== null)
  return [dx + (x?.by ?? 0), dy + (y?.by ?? 0)]
}

function sized(held: Grip, dx: number, dy: number): Figures {
  const s = props.handle.sizing!
  const [fx, fy] = s.fixed
  const rx = held.across ? Math.max((held.x + dx - fx) / (held.x - fx), 0.01) : 1
  const ry = held.down ? Math.max((held.y + dy - fy) / (held.y - fy), 0.01) : 1
  const onGuide = snaps.value[0]?.guide.axis
  const ratio = onGuide ? (onGuide === 'x' ? rx : ry) : held.across && held.down ? Math.max(rx, ry) : held.across ? rx : ry
  if (s.both.length) return scaled(s.both, ratio)
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
    <SnapLines :snaps="snaps" :viewport="viewport" :unit="unit" :origin="within" />
    <template v-if="handle.turn !== null">
      <line :x1="knob.x" :x2="knob.x" :y1="knob.y" :y2="knob.from" />
      <circle class="knob" :cx="knob.x" :cy="knob.y" r="6" data-grip="turn" @pointerdown.capture="grip = null" v-on="on">
        <title>{{ $t('Turn it') }}</title>
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
      <title>{{ $t('Size it') }}</title>
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
