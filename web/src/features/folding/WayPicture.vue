<script setup lang="ts">
/** A way of folding as a small moving picture: folded shut and opened again while it plays. */
import { wantsStillness } from '@/shared/motion'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'

const props = defineProps<{ pictures: readonly Schemas['FoldedPicture'][]; rest: number; playing: boolean }>()
const STEP_MS = 70
const REST = 7

const at = ref(0)
let timer: ReturnType<typeof setInterval> | undefined
watch(
  () => props.playing,
  (playing) => {
    clearInterval(timer)
    const still = wantsStillness()
    if (!playing || still) return void (at.value = props.rest)
    const n = props.pictures.length
    // there and back, with a rest at either end
    const path = [...Array(REST).fill(0), ...Array.from({ length: n }, (_, i) => i), ...Array(REST).fill(n - 1), ...Array.from({ length: n }, (_, i) => n - 1 - i)]
    let tick = 0
    timer = setInterval(() => {
      tick = (tick + 1) % path.length
      at.value = path[tick]
    }, STEP_MS)
  },
  { immediate: true },
)
onBeforeUnmount(() => clearInterval(timer))

const shown = computed(() => props.pictures[Math.min(at.value, props.pictures.length - 1)])
/** One frame for all while it moves, so that nothing jumps. */
const view = computed(() => {
  const moving = at.value !== props.rest || props.playing
  const boxes = (moving ? props.pictures : props.pictures.slice(props.rest, props.rest + 1)).map((p) => p.box)
  const left = Math.min(...boxes.map((b) => b[0]))
  const head = Math.min(...boxes.map((b) => b[1]))
  const right = Math.max(...boxes.map((b) => b[0] + b[2]))
  const foot = Math.max(...boxes.map((b) => b[1] + b[3]))
  const margin = Math.max(right - left, foot - head) * 0.04
  return `${left - margin} ${head - margin} ${right - left + 2 * margin} ${foot - head + 2 * margin}`
})
</script>

<template>
  <svg v-if="shown" :viewBox="view" aria-hidden="true">
    <path v-for="(s, i) in shown.shapes" :key="i" :d="s.path" :class="s.side" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: 100%;
}
path {
  stroke: var(--ink-1);
  stroke-width: 1.2px;
  vector-effect: non-scaling-stroke;
  stroke-linejoin: round;
}
.outside {
  fill: #b9ccd0;
}
.inside {
  fill: var(--paper-0);
}
</style>
