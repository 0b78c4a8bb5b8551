<script setup lang="ts">
/** The guides that something has snapped to, with their words and where they lie. */
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import type { Viewport } from '../useViewport'
import type { Snap } from './snapping'

const props = defineProps<{ snaps: readonly Snap[]; viewport: Viewport; unit: Unit; origin: readonly number[] }>()
/** What it is, and how far from the left or head of what the thing is on. */
const said = (s: Snap) =>
  `${s.guide.word} ${formatLength(s.guide.at - (props.origin[s.guide.axis === 'x' ? 0 : 1] ?? 0), props.unit, false)}`
</script>

<template>
  <g v-for="(s, i) in snaps" :key="i" class="snap">
    <template v-if="s.guide.axis === 'x'">
      <line :x1="viewport.toX(s.guide.at)" :x2="viewport.toX(s.guide.at)" y1="24" :y2="viewport.view.height" />
      <text :x="viewport.toX(s.guide.at) + 4" :y="viewport.view.height - 8">{{ said(s) }}</text>
    </template>
    <template v-else>
      <line :y1="viewport.toY(s.guide.at)" :y2="viewport.toY(s.guide.at)" x1="24" :x2="viewport.view.width" />
      <text :x="30" :y="viewport.toY(s.guide.at) - 4">{{ said(s) }}</text>
    </template>
  </g>
</template>

<style scoped>
line {
  stroke: var(--line-guide);
}
text {
  font: var(--size-figure) var(--figures);
  fill: var(--line-guide);
  paint-order: stroke;
  stroke: var(--surface);
  stroke-width: 4px;
}
</style>
