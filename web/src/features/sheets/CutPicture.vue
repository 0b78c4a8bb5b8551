<script setup lang="ts">
/** The cutter at work: what it has run so far, what came loose of it, and the place of a report's line. */
import { computed } from 'vue'
import { pointsOf } from './formats'
import type { CutResult } from './types'

const props = defineProps<{ result: CutResult; at: number; done: boolean; place: [number, number] | null; loupe?: boolean; piece?: number | null }>()
const height = computed(() => props.result.size[1])
const lines = computed(() => props.result.runs.map((r) => ({ ...r, points: pointsOf(r.places, height.value), look: r.cuts ? 'cut' : r.tool.includes('pen') ? 'draw' : 'score' })))
const shown = computed(() =>
  lines.value.map((r) => ({ ...r, share: props.done || props.at >= r.to_s ? 1 : props.at <= r.from_s ? 0 : (props.at - r.from_s) / (r.to_s - r.from_s || 1) })),
)
const loose = computed(() =>
  props.result.loose.map((l, i) => ({ d: props.result.outlines[i]!, named: l.meant !== null, there: props.done || props.at >= l.at_s, i })),
)
const up = computed(() => `matrix(1 0 0 -1 0 ${height.value})`)
const spot = computed(() => (props.place ? ([props.place[0], height.value - props.place[1]] as const) : null))
const box = computed(() =>
  props.loupe && spot.value
    ? `${spot.value[0] - 6} ${spot.value[1] - 4} 12 8`
    : `-3 -3 ${props.result.size[0] + 6} ${props.result.size[1] + 6}`,
)
</script>

<template>
  <svg :viewBox="box" :class="{ loupe }">
    <rect class="paper" :width="result.size[0]" :height="result.size[1]" />
    <path v-for="l in loose" v-show="l.there" :key="l.i" class="loose" :class="{ named: l.named, chosen: piece === l.i }" :d="l.d" :transform="up" fill-rule="evenodd" />
    <template v-for="(r, i) in shown" :key="i">
      <circle v-if="r.places.length === 2" v-show="r.share > 0" :class="r.look" class="prick" :cx="r.places[0]" :cy="height - r.places[1]!" r="0.6" />
      <polyline v-else v-show="r.share > 0" :class="r.look" :points="r.points" pathLength="1" :stroke-dasharray="r.share < 1 ? `${r.share} 2` : undefined" />
    </template>
    <g v-if="spot && !loupe" class="spot">
      <circle :cx="spot[0]" :cy="spot[1]" r="7" />
      <circle :cx="spot[0]" :cy="spot[1]" r="1.2" class="dot" />
    </g>
  </svg>
</template>

<style scoped>
@import './lines.css';
svg {
  width: 100%;
  height: 100%;
  min-height: 0;
}
.loupe polyline {
  stroke-width: 0.05;
}
.loose {
  fill: var(--paper-3);
}
.loose.named {
  fill: #bcd3c4;
}
.loose.chosen {
  fill: var(--copper-pale);
  stroke: var(--accent);
  stroke-width: 1;
}
.spot circle {
  fill: none;
  stroke: var(--error);
  stroke-width: 1;
}
.spot .dot {
  fill: var(--error);
}
</style>
