<script setup lang="ts">
/** For the mirror step: the hinge over the lap, and the best join. */
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { DesignData, StepData, Unit } from '@/shared/api/document'
import { valueAt } from '@/shared/values'
import BestJoinDialog from './BestJoinDialog.vue'
import LapCurve from './LapCurve.vue'

const props = defineProps<{
  step: StepData
  curve: Schemas['LapCurve']
  document: DesignData
  piece: string
  unit: Unit
  colour: string
}>()
const emit = defineEmits<{
  preview: [values: { lap: number }]
  commit: [values: { lap: number }]
  take: [join: Schemas['JoinView']]
}>()
const finding = ref(false)
const lap = computed(() => Number(valueAt(props.step, 'lap')))
function take(join: Schemas['JoinView']) {
  finding.value = false
  emit('take', join)
}
</script>

<template>
  <div class="lap-tools">
    <LapCurve :curve="curve" :lap="lap" :unit="unit" @preview="(v) => emit('preview', { lap: v })" @commit="(v) => emit('commit', { lap: v })" />
    <ElButton size="small" @click="finding = true">{{ $t('Find the best join …') }}</ElButton>
    <BestJoinDialog v-if="finding" :document="document" :piece="piece" :curve="curve" :unit="unit" :colour="colour" @close="finding = false" @take="take" />
  </div>
</template>

<style scoped>
.lap-tools {
  display: grid;
  gap: 6px;
  justify-items: start;
  margin-top: 10px;
}
.lap-tools > :deep(figure) {
  width: 100%;
}
</style>
