<script setup lang="ts">
/** A closed card in its envelope, to scale with its neighbours. */
import type { CardSize } from '@/shared/api/document'

const props = defineProps<{ size: CardSize; turned: boolean; scale: number; room: number }>()

function dims(width: number, height: number) {
  const [w, h] = props.turned ? [height, width] : [width, height]
  return { w: w * props.scale, h: h * props.scale }
}
</script>

<template>
  <svg class="size" :width="room + 4" :height="room + 4" :viewBox="`${-room / 2 - 2} ${-room / 2 - 2} ${room + 4} ${room + 4}`" aria-hidden="true">
    <template v-if="size.envelope">
      <rect
        class="envelope"
        :x="-dims(size.envelope.width, size.envelope.height).w / 2"
        :y="-dims(size.envelope.width, size.envelope.height).h / 2"
        :width="dims(size.envelope.width, size.envelope.height).w"
        :height="dims(size.envelope.width, size.envelope.height).h"
      />
    </template>
    <rect
      class="card"
      :x="-dims(size.width, size.height).w / 2"
      :y="-dims(size.width, size.height).h / 2"
      :width="dims(size.width, size.height).w"
      :height="dims(size.width, size.height).h"
    />
  </svg>
</template>

<style scoped>
.envelope {
  fill: var(--paper-3);
  stroke: var(--ink-3);
  stroke-dasharray: 3 2;
}
.card {
  fill: #c3d1d2;
  stroke: var(--ink-1);
  stroke-width: 1.2;
}
</style>
