<script setup lang="ts">
/** One of several: as arrows where the four sides are meant, otherwise from a list. */
import { computed } from 'vue'
import { useChoices } from '../choices'
import type { Field } from '../schemaForm'

const props = defineProps<{ field: Field; value: unknown }>()
const emit = defineEmits<{ change: [value: string] }>()
const ARROWS: Record<string, string> = { left: '←', right: '→', above: '↑', below: '↓' }
const choices = useChoices()
/** Those that can be taken as things stand, and what is chosen. */
const options = computed(() => {
  const offered = choices.value.offers[props.field.name]
  return props.field.options.filter((o) => !offered || offered.includes(o.value) || o.value === props.value)
})
const asArrows = computed(() => props.field.options.length === 4 && props.field.options.every((o) => o.value in ARROWS))
</script>

<template>
  <ElRadioGroup v-if="asArrows" :model-value="String(value)" :aria-label="field.title" @update:model-value="(v) => emit('change', String(v))">
    <ElRadioButton v-for="o in field.options" :key="o.value" :value="o.value" :aria-label="o.label">
      <span :title="o.label">{{ ARROWS[o.value] }}</span>
    </ElRadioButton>
  </ElRadioGroup>
  <ElSelect v-else :model-value="String(value)" :aria-label="field.title" @update:model-value="(v: string) => emit('change', v)">
    <ElOption v-for="o in options" :key="o.value" :value="o.value" :label="o.label" />
  </ElSelect>
</template>
