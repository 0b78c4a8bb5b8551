<script setup lang="ts">
/** A place that goes round another: its angle about that is the value, in steps where it is near one (Alt holds that off). */
import { computed } from 'vue'
import type { Unit } from '@/shared/api/document'
import { decimal } from '@/shared/words'
import type { Typed } from '../typed'
import type { Viewport } from '../useViewport'
import { figureAt, tidy, type AroundHandle, type Figures } from './handle'
import HandleBubble from './HandleBubble.vue'
import { useDrag } from './useDrag'

defineOptions({ inheritAttrs: false })
const props = defineProps<{ handle: AroundHandle; values: unknown; viewport: Viewport; unit: Unit }>()
const emit = defineEmits<{ preview: [figures: Figures]; commit: [figures: Figures]; type: [typed: Typed] }>()
const STEP_DEG = 15
const NEAR_DEG = 2.5

const value = computed(() => figureAt(props.values, props.handle.field, props.handle.value))
const label = computed(() => `${props.handle.word} ${decimal(value.value.toFixed(1))}°`)
const spot = computed(() => {
  const [left, head, right, foot] = props.handle.box
  return { x: (left + right) / 2, y: (head + foot) / 2 }
})
const set = (angle: number): Figures => ({ [props.handle.field]: angle })

const { dragging, on } = useDrag({
  viewport: () => props.viewport,
  preview: (figures) => emit('preview', figures),
  commit: (figures) => emit('commit', figures),
  moved(dx, dy, free) {
    const [cx, cy] = props.handle.centre
    const angle = (Math.atan2(spot.value.y + dy - cy, spot.value.x + dx - cx) * 180) / Math.PI
    const step = Math.round(angle / STEP_DEG) * STEP_DEG
    return set(!free && Math.abs(step - angle) < NEAR_DEG ? step : Math.round(angle * 10) / 10)
  },
  typed: (begun) =>
    emit('type', {
      x: props.viewport.toX(spot.value.x), y: props.viewport.toY(spot.value.y) - 24, value: value.value,
      label: props.handle.word, begun, degrees: true, take: (angle) => emit('commit', set(angle)),
    }),
  nudged: ({ across, down, fine }) => set(tidy(value.value + (across || down) * (fine ? 0.1 : 1))),
})
</script>

<template>
  <g>
    <g
      class="handle around"
      :class="{ dragging }"
      tabindex="0"
      role="slider"
      :aria-label="$t('{word}, move with the arrow keys', { word: handle.word })"
      :aria-valuetext="label"
      :aria-valuenow="value"
      :data-handle="handle.field"
      v-on="on"
    >
      <circle class="grip" :cx="viewport.toX(spot.x)" :cy="viewport.toY(spot.y)" r="6" />
    </g>
    <HandleBubble v-if="dragging" :x="viewport.toX(handle.box[2]) + 8" :left="viewport.toX(handle.box[0])" :y="viewport.toY(handle.box[1]) - 14" :label="label" :viewport="viewport" :unit="unit" />
  </g>
</template>

<style scoped src="./handle.css"></style>
