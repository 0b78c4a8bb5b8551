<script setup lang="ts">
/** Once for a screen: how many of its pixels a ruler finds in 100 mm. */
import { ref } from 'vue'
import type { Unit } from '@/shared/api/document'
import { rulerScale } from './rulerScale'

const props = defineProps<{ unit: Unit }>()
const emit = defineEmits<{ close: []; take: [pxPerMm: number] }>()
const open = ref(true)
const LENGTHS = { mm: { mm: 100, word: '100 mm' }, in: { mm: 101.6, word: '4 in' } }
const bar = LENGTHS[props.unit]
const scale = ref(rulerScale.value ?? 96 / 25.4)

function take() {
  rulerScale.value = scale.value
  open.value = false
  emit('take', scale.value)
}
</script>

<template>
  <ElDialog v-model="open" :title="$t('Actual size')" width="860px" align-center @closed="emit('close')">
    <p>{{ $t('Hold a ruler to the bar and set it to exactly {word}. This screen remembers it.', { word: bar.word }) }}</p>
    <svg width="800" height="56" role="img" :aria-label="$t('A bar that is to be {word} long', { word: bar.word })">
      <rect x="8" y="18" :width="bar.mm * scale" height="22" />
      <path :d="`M8 8V50M${8 + bar.mm * scale} 8V50`" />
    </svg>
    <ElSlider v-model="scale" :min="2" :max="7.5" :step="0.005" :show-tooltip="false" :aria-label="$t('Length of the bar')" />
    <template #footer>
      <ElButton @click="open = false">{{ $t('Leave it') }}</ElButton>
      <ElButton type="primary" @click="take">{{ $t('It is {word} now', { word: bar.word }) }}</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
rect {
  fill: var(--accent-pale);
}
path {
  stroke: var(--ink-0);
  stroke-width: 1.5;
}
</style>
