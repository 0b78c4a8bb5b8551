<script setup lang="ts">
/** A file in the cutter: played, and its report beside it. */
import { computed, ref, watch } from 'vue'
import CutPicture from './CutPicture.vue'
import CutReport from './CutReport.vue'
import PlayBar from './PlayBar.vue'
import type { CutResult } from './types'
import { usePlaying } from './usePlaying'

const props = defineProps<{ result: CutResult; meant: boolean; stale?: boolean }>()
const end = computed(() => props.result.time_s)
const playing = usePlaying(end)
const place = ref<[number, number] | null>(null)
const piece = ref<number | null>(null)
watch(
  () => props.result,
  () => {
    playing.stop()
    place.value = props.result.faults.find((f) => f.at)?.at ?? null
    piece.value = null
  },
  { immediate: true },
)
const done = computed(() => playing.at.value === 0 || playing.at.value >= end.value)
const now = computed(() => (done.value ? '' : (props.result.runs.find((r) => playing.at.value < r.to_s)?.tool ?? '')))
function look(where: [number, number] | null, which: number | null) {
  place.value = where
  piece.value = which
}
const print = () => window.print()
</script>

<template>
  <div class="cut-stage">
    <div class="picture">
      <CutPicture :result="result" :at="playing.at.value" :done="done" :place="place" :piece="piece" />
      <CutPicture v-if="place" class="glass" :result="result" :at="playing.at.value" :done="done" :place="place" loupe />
    </div>
    <aside>
      <slot />
      <p v-if="stale" class="stale" role="status">{{ $t('The cutter is at work again …') }}</p>
      <CutReport :class="{ old: stale }" :result="result" :meant="meant" @look="look" />
      <ElButton size="small" class="no-print" @click="print">{{ $t('Print the report') }}</ElButton>
    </aside>
    <PlayBar class="bar no-print" :play="playing" :end="end" :now="now" />
  </div>
</template>

<style scoped>
.cut-stage {
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) 330px;
  min-height: 0;
}
.bar {
  grid-column: 1 / -1;
}
.picture {
  position: relative;
  display: grid;
  min-height: 0;
  padding: 14px;
  background: var(--chrome-deep);
}
.glass {
  position: absolute;
  left: 14px;
  bottom: 14px;
  width: 210px;
  height: 140px;
  border: 2px solid var(--ink-1);
  border-radius: 10px;
  background: #fff;
}
aside {
  padding: 14px;
  overflow: auto;
  border-left: 1px solid var(--border);
  background: var(--surface);
  display: grid;
  gap: 12px;
  align-content: start;
}
.stale {
  font-weight: 600;
}
.old {
  opacity: 0.35;
}
@media print {
  .cut-stage {
    display: block;
  }
  .picture {
    height: 120mm;
  }
  .no-print {
    display: none;
  }
}
</style>
