<script setup lang="ts">
/** The name of the step in hand, and what can be done with it. */
import { computed } from 'vue'
import type { StepData } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import type { StepAction } from '../commands/useStepCommands'

const props = defineProps<{ step: StepData | null; index: number; count: number }>()
const emit = defineEmits<{ act: [action: StepAction] }>()
const catalogue = useCatalogue()
const kind = computed(() => (props.step ? catalogue.step(props.step.kind) : undefined))
</script>

<template>
  <div class="bar">
    <h2 class="title" :title="kind?.description">{{ step ? (kind?.title ?? step.kind) : $t('Size and paper') }}</h2>
    <span v-if="step" class="soft where">{{ $t('{index} of {n}', { index: index + 1, n: count }) }}</span>
    <span class="spring" />
    <template v-if="step">
      <button class="plain-button" :title="$t('Move it earlier (Alt+←)')" :aria-label="$t('Move the step earlier')" :disabled="index === 0" @click="emit('act', 'earlier')">◂</button>
      <button class="plain-button" :title="$t('Move it later (Alt+→)')" :aria-label="$t('Move the step later')" :disabled="index === count - 1" @click="emit('act', 'later')">▸</button>
      <button class="plain-button" :aria-pressed="!step.on" @click="emit('act', 'switch')">{{ step.on ? $t('switch off') : $t('switch on') }}</button>
      <button class="plain-button" @click="emit('act', 'duplicate')">{{ $t('duplicate') }}</button>
      <button class="plain-button" :title="$t('Remove it (Delete in the strip)')" @click="emit('act', 'remove')">{{ $t('remove') }}</button>
    </template>
  </div>
</template>

<style scoped>
.bar {
  white-space: nowrap;
  display: flex;
  align-items: center;
  gap: 1px;
  padding: 7px 12px 3px 16px;
}
.title {
  overflow: hidden;
  text-overflow: ellipsis;
}
.where {
  font-size: var(--size-small);
  padding-left: 4px;
}
button {
  padding: 2px 4px;
  border-radius: 4px;
  font-size: var(--size-small);
  color: var(--ink-1);
}
button:hover:not(:disabled) {
  background: var(--chrome-deep);
  color: var(--text);
}
button:disabled {
  opacity: 0.35;
  cursor: default;
}
</style>
