<script setup lang="ts">
/**
 * A straight line in hand; its figure can be typed over. It stands where the value says at once,
 * wherever the computed picture still is; dragging snaps to guides (Alt holds that off).
 */
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength, nudge } from '@/shared/units/lengths'
import type { Typed } from '../typed'
import type { Viewport } from '../useViewport'
import { bounded, figureAt, tidy, type Figures, type LineHandle } from './handle'
import HandleBubble from './HandleBubble.vue'
import { byHand, snap, type Snap } from './snapping'
import SnapLines from './SnapLines.vue'
import { useDrag } from './useDrag'

defineOptions({ inheritAttrs: false })
const props = defineProps<{
  handle: LineHandle
  values: unknown
  guides: readonly Schemas['Guide'][]
  /** The box of what it is on. */
  within: readonly number[]
  viewport: Viewport
  unit: Unit
  effect?: Schemas['EffectView'] | null
}>()
const emit = defineEmits<{ preview: [figures: Figures]; commit: [figures: Figures]; type: [typed: Typed] }>()

const REACH_PX = 7
const snaps = ref<Snap[]>([])
let from = 0

const sets = computed(() => props.handle.sets)
const value = computed(() => figureAt(props.values, sets.value.field, sets.value.value))
const at = computed(() => props.handle.origin + value.value / sets.value.factor)
const upright = computed(() => props.handle.axis === 'x')
const label = computed(() => `${props.handle.word} ${formatLength(value.value, props.unit)}`)
const line = computed(() => {
  const { toX, toY, view } = props.viewport
  const [x, y] = [toX(at.value), toY(at.value)]
  return upright.value
    ? { x1: x, x2: x, y1: 24, y2: view.height, grip: { x: x - 6, y: view.height / 2 - 13, width: 12, height: 26 } }
    : { x1: 24, x2: view.width, y1: y, y2: y, grip: { x: view.width / 2 - 13, y: y - 6, width: 26, height: 12 } }
})
const bubble = computed(() => {
  const { toX, toY } = props.viewport
  return upright.value ? { x: toX(at.value) + 10, y: 58 } : { x: 30, y: toY(at.value) - 34 }
})
const set = (figure: number): Figures => ({ [sets.value.field]: bounded(figure, sets.value.least) })

const { dragging, on } = useDrag({
  viewport: () => props.viewport,
  preview: (figures) => emit('preview', figures),
  commit: (figures) => emit('commit', figures),
  taken: () => (from = value.value),
  moved(dx, dy, free) {
    const { origin, axis } = props.handle
    const { factor } = sets.value
    const wished = origin + from / factor + (upright.value ? dx : dy)
    const hit = free ? null : snap(axis, [wished], props.guides, REACH_PX / props.viewport.view.scale)
    snaps.value = hit ? [hit] : []
    const found = ((hit ? hit.guide.at : wished) - origin) * factor
    return set(hit ? found : byHand(found))
  },
  typed: (begun) => type(bubble.value, begun),
  nudged({ across, down, fine }) {
    // the value changes by the step; the line follows to the side that was pressed
    const direction = upright.value ? across * (props.viewport.view.inside ? -1 : 1) : down
    if (!direction) return null
    return set(tidy(value.value + direction * Math.sign(sets.value.factor) * nudge(props.unit, fine)))
  },
  ended: () => (snaps.value = []),
})

function type(place: { x: number; y: number }, begun?: string) {
  const take = (mm: number) => emit('commit', set(mm))
  const at_ = begun === undefined ? place : { x: place.x + 60, y: place.y + 12 }
  emit('type', { ...at_, value: value.value, label: props.handle.word, take, ...(begun === undefined ? {} : { begun }) })
}
</script>

<template>
  <g>
    <SnapLines :snaps="snaps" :viewport="viewport" :unit="unit" :origin="within" />
    <g
      class="handle line"
      :class="[upright ? 'upright' : 'level', { dragging }]"
      tabindex="0"
      role="slider"
      :aria-label="$t('{word}, move with the arrow keys', { word: handle.word })"
      :aria-valuetext="label"
      :aria-valuenow="value"
      :data-handle="sets.field"
      v-on="on"
    >
      <line class="grab" :x1="line.x1" :x2="line.x2" :y1="line.y1" :y2="line.y2" />
      <line class="seen" :x1="line.x1" :x2="line.x2" :y1="line.y1" :y2="line.y2" />
      <rect class="grip" v-bind="line.grip" rx="4" />
    </g>
    <HandleBubble v-bind="bubble" :label="label" :viewport="viewport" :unit="unit" :effect="effect" typed @type="type" />
  </g>
</template>

<style scoped src="./handle.css"></style>
