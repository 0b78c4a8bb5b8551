<script setup lang="ts">
/** An artwork in its colours, fitted into the space there is; layers out of hand stand back. */
import { computed } from 'vue'

const props = defineProps<{
  layers: readonly { colour: string; path: string }[]
  box: readonly number[]
  /** Numbers of the layers that stand out; none: all of them. */
  inHand?: readonly number[]
}>()

const view = computed(() => {
  const [left, head, right, foot] = props.box as [number, number, number, number]
  const margin = Math.max(right - left, foot - head) * 0.04 + 0.01
  return `${left - margin} ${head - margin} ${right - left + 2 * margin} ${foot - head + 2 * margin}`
})
const faint = (i: number) => Boolean(props.inHand?.length) && !props.inHand!.includes(i)
</script>

<template>
  <svg class="layers-picture" :viewBox="view" aria-hidden="true">
    <path v-for="(layer, i) in layers" :key="i" :d="layer.path" :fill="layer.colour" :class="{ faint: faint(i) }" />
    <slot />
  </svg>
</template>

<style scoped>
.layers-picture {
  display: block;
  width: 100%;
  height: 100%;
}
path {
  stroke: rgb(30 42 53 / 45%);
  stroke-width: 0.7px;
  vector-effect: non-scaling-stroke;
}
.faint {
  opacity: 0.16;
}
</style>
