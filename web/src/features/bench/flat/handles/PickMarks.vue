<script setup lang="ts">
/** Areas to be picked: each can be hit, however small it is on the screen. */
import { computed } from 'vue'
import type { Unit } from '@/shared/api/document'
import { formatFigure } from '@/shared/units/figures'
import { t } from '@/shared/words'
import { wordsOf } from '../../panes/picking'
import type { Viewport } from '../useViewport'
import type { PickHandle } from './handle'

defineOptions({ inheritAttrs: false })
const props = defineProps<{ handle: PickHandle; hovered: number; viewport: Viewport; unit: Unit }>()
const emit = defineEmits<{ toggle: [index: number]; hover: [index: number] }>()

const SMALL_PX = 18
const words = computed(() => wordsOf(props.handle.word))
const marks = computed(() =>
  props.handle.candidates.map((c) => {
    const { toX, toY, view } = props.viewport
    const [left, head, right, foot] = c.box
    return {
      x: toX((left + right) / 2),
      y: toY((head + foot) / 2),
      tiny: Math.max(right - left, foot - head) * view.scale < SMALL_PX,
      label: t('{thing} of {size}, {taken}', { thing: words.value.one, size: formatFigure(c.value, c.unit, props.unit), taken: c.taken ? words.value.taken : words.value.left }),
    }
  }),
)
</script>

<template>
  <g class="picks">
    <g
      v-for="(c, i) in handle.candidates"
      :key="`${c.share}`"
      class="pick"
      :class="{ taken: c.taken, hovered: hovered === i }"
      role="checkbox"
      tabindex="0"
      :aria-checked="c.taken"
      :aria-label="marks[i]!.label"
      @pointerdown.stop
      @click="emit('toggle', i)"
      @keydown.enter.prevent="emit('toggle', i)"
      @keydown.space.prevent="emit('toggle', i)"
      @pointerenter="emit('hover', i)"
      @pointerleave="emit('hover', -1)"
    >
      <path :d="c.path" :transform="viewport.transform.value" />
      <template v-if="marks[i]!.tiny">
        <circle class="ring" :cx="marks[i]!.x" :cy="marks[i]!.y" :r="words.ring" />
        <circle class="dot" :cx="marks[i]!.x" :cy="marks[i]!.y" :r="words.ring / 3" />
      </template>
      <path v-if="c.taken" class="tick" :d="`M${marks[i]!.x - 5} ${marks[i]!.y}l3.5 4l6.5 -8`" />
    </g>
  </g>
</template>

<style scoped>
.pick {
  outline: none;
  cursor: pointer;
}
path {
  fill: rgb(169 89 26 / 14%);
  stroke: var(--accent);
  stroke-width: 1.4px;
  stroke-dasharray: 4 2.5;
  vector-effect: non-scaling-stroke;
}
.taken path {
  fill: rgb(169 89 26 / 48%);
  stroke-dasharray: none;
}
.hovered path,
.pick:focus-visible path {
  stroke-width: 3px;
}
.ring {
  fill: rgb(255 253 248 / 70%);
  stroke: var(--accent);
  stroke-width: 1.4px;
}
.dot {
  fill: none;
  stroke: var(--accent);
}
.taken .ring {
  fill: var(--accent-pale);
}
.taken .dot {
  fill: var(--accent);
}
.hovered .ring,
.pick:focus-visible .ring {
  stroke-width: 3px;
}
path.tick {
  fill: none;
  stroke: #fff;
  stroke-width: 2px;
  stroke-dasharray: none;
  paint-order: stroke;
}
</style>
