<script setup lang="ts">
/** Angles, areas, counts and shares. */
import NumberInput from '@/shared/components/NumberInput.vue'
import type { Field } from '../schemaForm'

defineProps<{ field: Field; value: unknown; trouble?: string }>()
const emit = defineEmits<{ change: [value: number] }>()
const SUFFIX: Record<string, string> = { angle: '°', area: 'mm²' }
</script>

<template>
  <NumberInput
    :model-value="Number(value)"
    :whole="field.control === 'count'"
    :suffix="SUFFIX[field.control] ?? ''"
    :label="field.title"
    :min="field.min"
    :max="field.max"
    :trouble="trouble"
    @update:model-value="(v) => emit('change', v)"
  />
</template>
