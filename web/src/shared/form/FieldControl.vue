<script setup lang="ts">
/** One value with the control that its schema asks for, its title, and what is wrong with it. */
import { computed } from 'vue'
import { CONTROLS, SELF_TELLING, spanOf, TITLED_ITSELF } from './controls'
import type { Field } from './schemaForm'

const props = defineProps<{ field: Field; value: unknown; trouble?: string }>()
const emit = defineEmits<{ change: [value: unknown] }>()

const told = computed(() => (props.trouble && !SELF_TELLING.has(props.field.control) ? props.trouble : ''))
</script>

<template>
  <div class="field" :class="told ? 'row' : spanOf(field)">
    <span v-if="!TITLED_ITSELF.has(field.control)" class="title" :title="field.description">{{ field.title }}</span>
    <component :is="CONTROLS[field.control] ?? CONTROLS.text" :field="field" :value="value" :trouble="trouble" @change="(v: unknown) => emit('change', v)" />
    <p v-if="told" class="message" role="alert">{{ told }}</p>
  </div>
</template>

<style scoped>
.field {
  min-width: 0;
}
.title {
  display: block;
  font-size: var(--size-small);
  color: var(--text-soft);
}
.message {
  color: var(--error);
  font-size: var(--size-small);
}
.field:has(> .anchor-grid) {
  grid-row: span 2;
}
.row {
  grid-column: 1 / -1;
}
.double {
  grid-column: span 2;
}
.field :deep(.el-radio-button__inner) {
  padding: 8px 11px;
}
</style>
