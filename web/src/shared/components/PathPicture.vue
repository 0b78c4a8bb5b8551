<script setup lang="ts">
/** A small picture of a piece: its outline, its folds, fitted into the space there is. */
import { computed } from 'vue'

type Bounds = readonly number[]
const props = defineProps<{
  path: string
  box: Bounds
  folds?: readonly (readonly number[])[]
  perforated?: readonly (readonly number[])[]
  drawn?: string
  ghost?: string
  ghostBox?: Bounds
  colour?: string
}>()

const view = computed(() => {
  const boxes = props.ghostBox ? [props.box, props.ghostBox] : [props.box]
  const left = Math.min(...boxes.map((b) => b[0]!))
  const head = Math.min(...boxes.map((b) => b[1]!))
  const width = Math.max(...boxes.map((b) => b[2]!)) - left
  const height = Math.max(...boxes.map((b) => b[3]!)) - head
  const margin = Math.max(width, height) * 0.05 + 0.5
  return `${left - margin} ${head - margin} ${width + 2 * margin} ${height + 2 * margin}`
})
</script>

<template>
  <svg class="path-picture" :viewBox="view" aria-hidden="true">
    <path class="paper" :d="path" :fill="colour ?? 'var(--picture-paper, #c3d1d2)'" />
    <path v-if="drawn" class="drawn" :d="drawn" />
    <line
      v-for="(fold, i) in folds ?? []"
      :key="i"
      class="fold"
      :x1="fold[0]"
      :y1="fold[1]"
      :x2="fold[2]"
      :y2="fold[3]"
    />
    <line
      v-for="(cut, i) in perforated ?? []"
      :key="`p${i}`"
      class="perforated"
      :x1="cut[0]"
      :y1="cut[1]"
      :x2="cut[2]"
      :y2="cut[3]"
    />
    <path v-if="ghost" class="ghost" :d="ghost" />
  </svg>
</template>

<style scoped>
.path-picture {
  display: block;
  width: 100%;
  height: 100%;
}
.paper {
  stroke: var(--ink-1);
  stroke-width: 1.1px;
  vector-effect: non-scaling-stroke;
}
.ghost {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1px;
  stroke-dasharray: 3 2.5;
  vector-effect: non-scaling-stroke;
}
.perforated {
  stroke: var(--line-fold);
  stroke-width: 2px;
  vector-effect: non-scaling-stroke;
}
.fold {
  stroke: var(--line-fold);
  stroke-width: 1.5px;
  stroke-dasharray: 5 2 1 2;
  vector-effect: non-scaling-stroke;
}
.drawn {
  fill: none;
  stroke: var(--line-draw);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
}
</style>
