<script setup lang="ts">
/** The values that a way of folding asks for; the form is made from the core's schema. */
import { computed } from 'vue'
import type { Folding, Unit } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import { provideChoices } from '@/shared/form/choices'
import FieldControl from '@/shared/form/FieldControl.vue'
import { counts, fieldsOf } from '@/shared/form/schemaForm'
import { valueAt } from '@/shared/values'
import OwnPanels from './OwnPanels.vue'

const props = defineProps<{ modelValue: Folding; unit: Unit }>()
const emit = defineEmits<{ 'update:modelValue': [folding: Folding] }>()
const catalogue = useCatalogue()
const fields = computed(() =>
  fieldsOf(catalogue.data?.folding ?? {}).filter((f) => counts(f, props.modelValue)),
)
provideChoices(() => ({ unit: props.unit }))

function set(values: Partial<Folding>) {
  const next = { ...props.modelValue, ...values }
  // the front is one of the panels that there are
  emit('update:modelValue', { ...next, front: Math.min(next.front, next.panels.length) })
}
</script>

<template>
  <div class="folding-form">
    <template v-for="f in fields" :key="f.name">
      <div v-if="f.control === 'panels'" class="own">
        <OwnPanels :model-value="modelValue.panels" :unit="unit" @update:model-value="(panels) => set({ panels })" />
      </div>
      <FieldControl
        v-else
        :field="f"
        :value="valueAt(modelValue, f.name)"
        @change="(v) => set({ [f.name]: v })"
      />
    </template>
  </div>
</template>

<style scoped>
.folding-form {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px 12px;
}
.folding-form > :deep(.choice) {
  grid-column: auto;
}
.own {
  grid-column: 1 / -1;
}
</style>
