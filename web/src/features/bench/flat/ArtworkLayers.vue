<script setup lang="ts">
/** The layers of the piece's artwork, in register, faintly on the paper. */
import { computed, useId } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Artwork } from '@/shared/api/document'

const props = defineProps<{ placed: Schemas['PlacedView']; artwork: Artwork }>()
const id = useId()
const matrix = computed(() => `matrix(${props.placed.matrix.join(' ')})`)
</script>

<template>
  <g class="artwork-layers" data-testid="artwork-layers" aria-hidden="true">
    <clipPath :id="id"><rect :x="placed.within[0]" :y="placed.within[1]" :width="placed.within[2] - placed.within[0]" :height="placed.within[3] - placed.within[1]" /></clipPath>
    <g :clip-path="`url(#${id})`">
      <g :transform="matrix">
        <path v-for="(layer, i) in artwork.layers" :key="i" :d="layer.path" :fill="layer.colour" :fill-rule="layer.rule" />
      </g>
    </g>
  </g>
</template>

<style scoped>
.artwork-layers {
  opacity: 0.34;
  pointer-events: none;
}
path {
  stroke: var(--ink-2);
  stroke-width: 0.6px;
  vector-effect: non-scaling-stroke;
}
</style>
