<script setup lang="ts">
/** The sheet that the paper comes in, round the middle of the piece, and what the machine reaches of it. */
import { computed } from 'vue'
import type { Paper, Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import { t } from '@/shared/words'
import type { Viewport } from './useViewport'

const props = defineProps<{ box: readonly number[]; paper: Paper; viewport: Viewport; unit: Unit }>()

const frame = computed(() => {
  const [left, head, right, foot] = props.box as [number, number, number, number]
  const { sheet_width: w, sheet_height: h, edge } = props.paper
  const over = (wide: number, high: number) => Math.max(right - left - wide, foot - head - high)
  // as it takes the piece best
  const [wide, high] = over(h, w) < over(w, h) ? [h, w] : [w, h]
  const [x, y] = [(left + right - wide) / 2, (head + foot - high) / 2]
  const fits = over(wide - 2 * edge, high - 2 * edge) <= 1e-6
  return { x, y, wide, high, edge, fits }
})
const said = computed(() => {
  const size = [frame.value.wide, frame.value.high].map((v) => formatLength(v, props.unit, false)).join(' × ')
  return t('sheet {size} {unit}{fits}', { size, unit: props.unit, fits: frame.value.fits ? '' : ', too small' })
})
</script>

<template>
  <g class="sheet-frame" :class="{ small: !frame.fits }">
    <g :transform="viewport.transform.value">
      <rect class="whole" :x="frame.x" :y="frame.y" :width="frame.wide" :height="frame.high" />
      <rect v-if="frame.edge" class="reached" :x="frame.x + frame.edge" :y="frame.y + frame.edge" :width="Math.max(frame.wide - 2 * frame.edge, 0)" :height="Math.max(frame.high - 2 * frame.edge, 0)" />
    </g>
    <text :x="Math.max(viewport.toX(frame.x), 30) + 6" :y="Math.max(viewport.toY(frame.y), 60) + 14">{{ said }}</text>
  </g>
</template>

<style scoped>
rect {
  fill: none;
  stroke: var(--text-soft);
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.whole {
  stroke-width: 1.2;
}
.reached {
  stroke-width: 1;
  stroke-dasharray: 2 5;
}
text {
  fill: var(--text-soft);
  font-size: var(--size-small);
}
.small rect {
  stroke: var(--error);
}
.small text {
  fill: var(--error);
}
</style>
