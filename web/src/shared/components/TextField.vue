<script setup lang="ts">
/** A line of text that counts when it is left or taken with Enter; Escape gives it up. */
import { ref, watch } from 'vue'

const props = defineProps<{ modelValue: string; label: string; maxlength?: number }>()
const emit = defineEmits<{ 'update:modelValue': [text: string] }>()
const text = ref('')
watch(
  () => props.modelValue,
  (value) => (text.value = value),
  { immediate: true },
)

function take() {
  if (text.value !== props.modelValue) emit('update:modelValue', text.value)
  // what was not accepted does not stay
  text.value = props.modelValue
}
</script>

<template>
  <ElInput
    v-model="text"
    :aria-label="label"
    :maxlength="maxlength"
    @change="take"
    @keydown.escape="text = modelValue"
  />
</template>
