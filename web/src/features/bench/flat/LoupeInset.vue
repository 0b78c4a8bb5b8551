<script setup lang="ts">
/** The loupe: goes by itself to the places that matter, one after the other by its keys. */
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import { t } from '@/shared/words'
import type { Spot } from './useFreePlace'

const props = defineProps<{
  places: readonly Schemas['LoupePlace'][]
  path: string
  folds: readonly Schemas['FoldView'][]
  colour: string
  unit: Unit
  /** Where it is, in pixels of the view. */
  spot: Spot
  /** Where something is dragged: it is looked at instead. */
  follow: { x: number; y: number } | null
}>()
const at = ref(0)
const SIZE = 118
watch(
  () => props.places.length,
  (n) => {
    if (at.value >= n) at.value = 0
  },
)
const ACROSS_DRAGGED = 16
const place = computed(() =>
  props.follow
    ? { ...props.follow, across: ACROSS_DRAGGED, title: t('Under the pointer'), value: null }
    : (props.places[at.value] ?? null),
)
const view = computed(() => {
  const p = place.value
  return p ? `${p.x - p.across / 2} ${p.y - p.across / 2} ${p.across} ${p.across}` : '0 0 1 1'
})
const times = computed(() => (place.value ? Math.round((SIZE / place.value.across / 96) * 25.4) : 1))
const bar = computed(() => (place.value && place.value.across > 12 ? 5 : 1))

function step(by: number) {
  const n = props.places.length
  if (n) at.value = (at.value + by + n) % n
}
function show(index: number) {
  if (props.places[index]) at.value = index
}
defineExpose({ step, show })
</script>

<template>
  <aside
    v-if="place"
    class="loupe"
    :class="{ lying: spot.width > spot.height }"
    :style="{ left: `${spot.left}px`, top: `${spot.top}px`, width: `${spot.width}px`, height: `${spot.height}px` }"
    :aria-label="$t('Loupe')"
  >
    <svg :viewBox="view" :width="SIZE" :height="SIZE" role="img" :aria-label="$t('Loupe: {title}', { title: place.title })">
      <path class="paper" :d="path" :fill="colour" />
      <template v-for="f in folds" :key="f.name">
        <line v-for="(s, i) in f.spans" :key="i" class="fold" :x1="s.stroke[0]" :y1="s.stroke[1]" :x2="s.stroke[2]" :y2="s.stroke[3]" />
      </template>
      <path class="bar" :d="`M${place.x - place.across * 0.42} ${place.y + place.across * 0.43}h${bar}`" />
    </svg>
    <div class="words">
      <p>{{ place.title }}<template v-if="place.value !== null">: <strong class="figure">{{ formatLength(place.value ?? 0, unit) }}</strong></template></p>
      <p class="soft">{{ $t('{times} times, bar {bar} mm', { times, bar }) }}</p>
      <p v-if="!follow" class="steps">
      <button class="plain-button" :aria-label="$t('The place before')" :title="$t('The place before (,)')" @click="step(-1)">‹</button>
      <span class="figure">{{ $t('{at} of {n}', { at: at + 1, n: places.length }) }}</span>
      <button class="plain-button" :aria-label="$t('The next place')" :title="$t('The next place (.)')" @click="step(1)">›</button>
    </p>
    </div>
  </aside>
</template>

<style scoped>
.loupe {
  position: absolute;
  display: grid;
  grid-template-columns: 118px;
  align-content: start;
  gap: 6px;
  padding: 6px;
  border: 1px solid var(--border-strong);
  border-radius: 10px;
  background: var(--surface);
  box-shadow: 0 2px 8px rgb(60 45 20 / 18%);
  font-size: var(--size-small);
}
svg {
  display: block;
  border-radius: 6px;
  background: var(--paper-2);
}
path,
line {
  vector-effect: non-scaling-stroke;
}
.paper {
  stroke: var(--line-cut);
  stroke-width: 1.6px;
}
.fold {
  stroke: var(--line-fold);
  stroke-width: 2px;
  stroke-dasharray: 7 3 2 3;
}
.bar {
  stroke: var(--ink-0);
  stroke-width: 3px;
}
.lying {
  grid-template-columns: auto 128px;
  gap: 9px;
}
.words {
  display: grid;
  align-content: space-between;
  line-height: 1.25;
}
.steps {
  display: flex;
  gap: 6px;
  align-items: center;
}
.steps button {
  padding: 0 8px;
  font-size: var(--size-title);
  line-height: 1;
  border: 1px solid var(--border-strong);
  border-radius: 6px;
}
</style>
