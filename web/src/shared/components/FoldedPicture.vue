<script setup lang="ts">
/** A still of the half-open card. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'

const props = defineProps<{ picture: Schemas['FoldedPicture'] }>()
const view = computed(() => {
  const [left, head, width, height] = props.picture.box
  const margin = Math.max(width, height) * 0.06
  return `${left - margin} ${head - margin} ${width + 2 * margin} ${height + 2 * margin}`
})
</script>

<template>
  <svg class="folded" :viewBox="view" aria-hidden="true">
    <path
      v-for="(shape, i) in picture.shapes"
      :key="i"
      :d="shape.path"
      :fill="shape.what === 'line' ? 'none' : shape.fill"
      :class="[shape.side, shape.what]"
      :style="shape.what === 'line' ? { stroke: shape.fill } : undefined"
    />
  </svg>
</template>

<style scoped>
.folded {
  display: block;
  width: 100%;
  height: 100%;
  filter: drop-shadow(0 3px 4px rgb(60 45 20 / 22%));
}
path {
  stroke: var(--ink-1);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
  stroke-linejoin: round;
}
.print {
  stroke: none;
}
.inside {
  filter: brightness(0.93);
}
</style>
