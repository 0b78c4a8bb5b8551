<script setup lang="ts">
import type { Field } from '../schemaForm'

defineProps<{ field: Field; value: unknown }>()
const emit = defineEmits<{ change: [value: boolean] }>()
</script>

<template>
  <ElSwitch
    :model-value="Boolean(value)"
    :active-text="field.title"
    :aria-label="field.title"
    @update:model-value="(v: string | number | boolean) => emit('change', Boolean(v))"
  />
</template>
