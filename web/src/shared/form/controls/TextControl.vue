<script setup lang="ts">
import TextField from '@/shared/components/TextField.vue'
import type { Field } from '../schemaForm'

defineProps<{ field: Field; value: unknown }>()
const emit = defineEmits<{ change: [value: string] }>()
</script>

<template>
  <TextField :model-value="String(value ?? '')" :label="field.title" @update:model-value="(v) => emit('change', v)" />
</template>
