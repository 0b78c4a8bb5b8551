<script setup lang="ts">
/** One of the folds, windows or pieces that there are. */
import { computed } from 'vue'
import { called } from '@/shared/words'
import { useChoices } from '../choices'
import type { Field } from '../schemaForm'

const props = defineProps<{ field: Field; value: unknown }>()
const emit = defineEmits<{ change: [value: string] }>()
const choices = useChoices()
const named = computed(() => {
  if (props.field.control === 'piece') return choices.value.pieces
  if (props.field.control === 'window') return choices.value.windows
  return (choices.value.offers[props.field.name] ?? []).map((name) => ({ key: name, title: called(name) }))
})
</script>

<template>
  <ElSelect :empty-values="[null, undefined]" :model-value="String(value)" :aria-label="field.title" @update:model-value="(v: string) => emit('change', v)">
    <ElOption v-if="field.empty" value="" :label="field.empty" />
    <ElOption v-for="n in named" :key="n.key" :value="n.key" :label="n.title" />
  </ElSelect>
</template>
