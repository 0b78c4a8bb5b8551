<script setup lang="ts">
/** The closed card in its envelope, for the strip. */
import { computed } from 'vue'
import type { DesignData } from '@/shared/api/document'

const props = defineProps<{ card: DesignData['card'] }>()
const sizes = computed(() => {
  const turn = (w: number, h: number) => (props.card.turned ? [h, w] : [w, h]) as [number, number]
  const card = turn(props.card.size.width, props.card.size.height)
  const e = props.card.size.envelope
  const envelope = e ? turn(e.width, e.height) : card
  const longest = Math.max(...card, ...envelope)
  return { card, envelope, view: `${-longest / 2 - 4} ${-longest / 2 - 4} ${longest + 8} ${longest + 8}` }
})
</script>

<template>
  <svg :viewBox="sizes.view" aria-hidden="true">
    <rect class="envelope" :x="-sizes.envelope[0] / 2" :y="-sizes.envelope[1] / 2" :width="sizes.envelope[0]" :height="sizes.envelope[1]" />
    <rect class="card" :x="-sizes.card[0] / 2" :y="-sizes.card[1] / 2" :width="sizes.card[0]" :height="sizes.card[1]" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: 100%;
}
rect {
  vector-effect: non-scaling-stroke;
}
.envelope {
  fill: var(--paper-2);
  stroke: var(--ink-3);
  stroke-dasharray: 3 2;
}
.card {
  fill: var(--paper-0);
  stroke: var(--ink-1);
}
</style>
