<script setup lang="ts">
import type { Field } from '../schemaForm'
import AnchorGrid from './AnchorGrid.vue'

defineProps<{ field: Field; value: unknown }>()
const emit = defineEmits<{ change: [value: string] }>()
</script>

<template>
  <AnchorGrid :model-value="String(value)" :label="field.title" @update:model-value="(v) => emit('change', v)" />
</template>
