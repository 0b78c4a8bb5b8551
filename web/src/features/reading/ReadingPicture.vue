<script setup lang="ts">
/** One picture of what was found: layers in their colours, open lines, what is in hand. */
import { computed } from 'vue'
import LayersPicture from '@/shared/components/LayersPicture.vue'
import { boxOf, pictureOf, type Draft, type Found } from './grouping'

const props = defineProps<{ found: Found; drafts: readonly Draft[]; inHand: readonly number[] }>()

const layers = computed(() =>
  props.drafts.map((d) => ({ colour: d.kept ? d.colour : 'none', path: pictureOf(d, props.found) })),
)
const box = computed(() => {
  const open = props.found.open.flatMap((o) => o.points)
  const [left, head, right, foot] = boxOf(props.drafts, props.found)
  if (open.length > 5000) return [left, head, right, foot]
  return [
    Math.min(left, ...open.map((p) => p[0])),
    Math.min(head, ...open.map((p) => p[1])),
    Math.max(right, ...open.map((p) => p[0])),
    Math.max(foot, ...open.map((p) => p[1])),
  ]
})
const open = computed(() => props.found.open.map((o) => `M${o.points.map((p) => p.join(' ')).join('L')}`).join(''))
</script>

<template>
  <LayersPicture :layers="layers" :box="box" :in-hand="inHand" class="picture">
    <path v-if="open" class="open under" :d="open" />
    <path v-if="open" class="open" :d="open" />
  </LayersPicture>
</template>

<style scoped>
.picture {
  background: var(--paper-2);
  border: 1px solid var(--border);
  border-radius: 8px;
}
.open {
  fill: none;
  stroke: var(--error);
  stroke-width: 2px;
  stroke-dasharray: 5 3;
  vector-effect: non-scaling-stroke;
}
.under.open {
  stroke: var(--paper-0);
  stroke-width: 4px;
  stroke-dasharray: none;
}
</style>
