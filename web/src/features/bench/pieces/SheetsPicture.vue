<script setup lang="ts">
/** Pieces of paper on each other, those that matter in full, the rest faint. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'

const props = defineProps<{
  box: Schemas['OfferView']['box']
  sheets: readonly Schemas['AssembledSheet'][]
  lit: readonly string[]
}>()
const view = computed(() => {
  const [left, head, right, foot] = props.box
  const margin = Math.max(right - left, foot - head) * 0.04
  return `${left - margin} ${head - margin} ${right - left + 2 * margin} ${foot - head + 2 * margin}`
})
</script>

<template>
  <svg :viewBox="view" aria-hidden="true">
    <path
      v-for="s in sheets"
      :key="s.piece"
      :d="s.path"
      :fill="s.fill"
      :fill-opacity="1 - s.light"
      :class="{ faint: !lit.includes(s.piece) }"
      fill-rule="evenodd"
    />
  </svg>
</template>

<style scoped>
path {
  stroke: var(--ink-1);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
}
.faint {
  opacity: 0.32;
}
</style>
