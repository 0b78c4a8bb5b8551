<script setup lang="ts">
/** What something is placed by: a panel, the open card, the figure, or a window by its step. */
import { computed } from 'vue'
import { called, t } from '@/shared/words'
import { useChoices } from '../choices'
import type { Field } from '../schemaForm'

const props = defineProps<{ field: Field; value: unknown }>()
const emit = defineEmits<{ change: [value: string] }>()
const choices = useChoices()

const WORDS: Record<string, string> = { card: t('open card'), figure: t('the figure') }
const BY_STEP = 'step:'
/** Panels to choose from, the present one among them even where it is gone. */
const panels = computed(() => {
  const value = String(props.value)
  const { targets } = choices.value
  return value === '' || value.startsWith(BY_STEP) || targets.includes(value) ? targets : [value, ...targets]
})
</script>

<template>
  <ElSelect :empty-values="[null, undefined]" :model-value="String(value)" :aria-label="field.title" @update:model-value="(v: string) => emit('change', v)">
    <ElOption v-if="field.empty" value="" :label="field.empty" />
    <ElOption v-for="p in panels" :key="p" :value="p" :label="WORDS[p] ?? called(p)" />
    <template v-if="field.name === 'target'">
      <ElOption v-for="w in choices.windows" :key="w.key" :value="`${BY_STEP}${w.key}`" :label="w.title" />
    </template>
  </ElSelect>
</template>
