<script setup lang="ts">
/** The finished piece, small, with the place of a finding. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Picture } from '../state/useEvaluation'

const props = defineProps<{ finding: Schemas['FindingView']; picture: Picture; colour: string }>()
const view = computed(() => {
  const [left, head, right, foot] = props.picture.box as [number, number, number, number]
  const margin = Math.max(right - left, foot - head) * 0.08 + 1
  return `${left - margin} ${head - margin} ${right - left + 2 * margin} ${foot - head + 2 * margin}`
})
</script>

<template>
  <svg class="finding" :viewBox="view" aria-hidden="true">
    <path class="paper" :d="picture.path" :fill="colour" />
    <line v-for="(f, i) in picture.folds" :key="`f${i}`" class="fold" :x1="f[0]" :y1="f[1]" :x2="f[2]" :y2="f[3]" />
    <path v-for="(d, i) in finding.outlines" :key="i" class="place" :d="d" />
    <line v-for="(l, i) in finding.lines" :key="`l${i}`" class="place" :x1="l[0]" :y1="l[1]" :x2="l[2]" :y2="l[3]" />
  </svg>
</template>

<style scoped>
.finding {
  width: 84px;
  height: 62px;
}
.paper {
  stroke: var(--ink);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
.fold {
  stroke: var(--ink-soft, #667);
  stroke-width: 1;
  stroke-dasharray: 3 2;
  vector-effect: non-scaling-stroke;
}
.place {
  fill: none;
  stroke: var(--error);
  stroke-width: 3;
  stroke-linecap: round;
  vector-effect: non-scaling-stroke;
}
</style>
