<script setup lang="ts">
import LengthInput from '@/shared/components/LengthInput.vue'
import { useChoices } from '../choices'
import type { Field } from '../schemaForm'

defineProps<{ field: Field; value: unknown; trouble?: string }>()
const emit = defineEmits<{ change: [value: number] }>()
const choices = useChoices()
</script>

<template>
  <LengthInput
    :model-value="Number(value)"
    :unit="choices.unit"
    :label="field.title"
    :min="field.min"
    :max="field.max"
    :above="field.above"
    :trouble="trouble"
    @update:model-value="(v) => emit('change', v)"
  />
</template>
