<script setup lang="ts">
/** The panels of an own way of folding: widths, which way each crease points, when it is folded. */
import type { OwnPanel, Unit } from '@/shared/api/document'
import LengthInput from '@/shared/components/LengthInput.vue'
import NumberInput from '@/shared/components/NumberInput.vue'

const props = defineProps<{ modelValue: readonly OwnPanel[]; unit: Unit }>()
const emit = defineEmits<{ 'update:modelValue': [panels: OwnPanel[]] }>()
const MOST = 12

function set(index: number, values: Partial<OwnPanel>) {
  emit('update:modelValue', props.modelValue.map((p, i) => (i === index ? { ...p, ...values } : p)))
}
function add() {
  const last = props.modelValue.at(-1)
  if (last) emit('update:modelValue', [...props.modelValue, { ...last }])
}
function remove(index: number) {
  emit('update:modelValue', props.modelValue.filter((_, i) => i !== index))
}
</script>

<template>
  <table class="panels">
    <thead>
      <tr><th /><th>{{ $t('Width') }}</th><th>{{ $t('Crease after it') }}</th><th>{{ $t('Folded as') }}</th><th /></tr>
    </thead>
    <tbody>
      <tr v-for="(p, i) in modelValue" :key="i">
        <td class="figure">{{ i + 1 }}</td>
        <td><LengthInput :model-value="p.width" :unit="unit" :label="$t('Width of panel {i}', { i: i + 1 })" :min="1" :max="1000" @update:model-value="(width) => set(i, { width })" /></td>
        <template v-if="i < modelValue.length - 1">
          <td>
            <ElSelect :model-value="p.direction" :aria-label="$t('Crease after panel {i}', { i: i + 1 })" @update:model-value="(d: OwnPanel['direction']) => set(i, { direction: d })">
              <ElOption value="mountain" :label="$t('mountain')" /><ElOption value="valley" :label="$t('valley')" />
            </ElSelect>
          </td>
          <td><NumberInput :model-value="p.order" whole suffix="" :label="$t('Crease {i} is folded as', { i: i + 1 })" :min="1" :max="MOST" @update:model-value="(order) => set(i, { order })" /></td>
        </template>
        <td v-else colspan="2" class="soft">{{ $t('the last') }}</td>
        <td><button class="plain-button" :disabled="modelValue.length < 2" :aria-label="$t('Take panel {i} away', { i: i + 1 })" :title="$t('Take it away')" @click="remove(i)">×</button></td>
      </tr>
    </tbody>
  </table>
  <ElButton size="small" :disabled="modelValue.length >= MOST" @click="add">{{ $t('Add a panel') }}</ElButton>
</template>

<style scoped>
.panels {
  table-layout: fixed;
  width: 100%;
  border-collapse: collapse;
  font-size: var(--size-small);
  margin-bottom: 6px;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--text-soft);
}
td,
th {
  padding: 2px 6px 2px 0;
}
th:first-child {
  width: 20px;
}
th:nth-child(2) {
  width: 29%;
}
th:nth-child(4) {
  width: 17%;
}
th:last-child {
  width: 24px;
}
button {
  padding: 2px 8px;
  font-size: var(--size-heading);
}
button:disabled {
  opacity: 0.3;
}
</style>
