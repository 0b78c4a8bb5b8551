<script setup lang="ts">
/** One value of a step, with the control that its schema asks for. */
import type { Unit } from '@/shared/api/document'
import LengthInput from '@/shared/components/LengthInput.vue'
import type { Field } from '@/shared/schemaForm'
import AnchorGrid from './AnchorGrid.vue'
import NumberInput from '@/shared/components/NumberInput.vue'
import TextField from '@/shared/components/TextField.vue'

const props = defineProps<{
  field: Field
  value: unknown
  unit: Unit
  targets: readonly string[]
  folds: readonly string[]
  windows?: readonly { key: string; title: string }[]
  pieces?: readonly { key: string; title: string }[]
  trouble?: string
}>()
const emit = defineEmits<{ change: [value: unknown] }>()

const SUFFIX: Record<string, string> = { angle: '°', area: 'mm²', count: '', share: '' }
/** Controls that show their trouble themselves. */
const MEASURED = ['length', 'angle', 'area', 'count', 'share']
const ARROWS: Record<string, string> = { left: '←', right: '→', above: '↑', below: '↓' }
const named = () => (props.field.control === 'piece' ? (props.pieces ?? []) : (props.windows ?? []))
/** Panels to choose from, the present one among them even where it is gone. */
const panels = () => {
  const value = String(props.value)
  const known = value === '' || value.startsWith('step:') || props.targets.includes(value)
  return known ? props.targets : [value, ...props.targets]
}
const asArrows = () => props.field.options.length === 4 && props.field.options.every((o) => o.value in ARROWS)
</script>

<template>
  <div class="field" :class="[field.control, { named: field.control === 'target' && field.empty, wide: trouble && !MEASURED.includes(field.control) }]">
    <span v-if="field.control !== 'switch'" class="title" :title="field.description">{{ field.title }}</span>
    <LengthInput
      v-if="field.control === 'length'"
      :model-value="Number(value)"
      :unit="unit"
      :label="field.title"
      :min="field.min"
      :max="field.max"
      :above="field.above"
      :trouble="trouble"
      @update:model-value="(v) => emit('change', v)"
    />
    <NumberInput
      v-else-if="['angle', 'area', 'count', 'share'].includes(field.control)"
      :model-value="Number(value)"
      :whole="field.control === 'count'"
      :suffix="SUFFIX[field.control] ?? ''"
      :label="field.title"
      :min="field.min"
      :max="field.max"
      :trouble="trouble"
      @update:model-value="(v) => emit('change', v)"
    />
    <ElSwitch
      v-else-if="field.control === 'switch'"
      :model-value="Boolean(value)"
      :active-text="field.title"
      :aria-label="field.title"
      @update:model-value="(v) => emit('change', v)"
    />
    <AnchorGrid
      v-else-if="field.control === 'anchor'"
      :model-value="String(value)"
      :label="field.title"
      @update:model-value="(v) => emit('change', v)"
    />
    <ElRadioGroup
      v-else-if="field.control === 'choice' && asArrows()"
      :model-value="String(value)"
      :aria-label="field.title"
      @update:model-value="(v) => emit('change', v)"
    >
      <ElRadioButton v-for="o in field.options" :key="o.value" :value="o.value" :aria-label="o.label">
        <span :title="o.label">{{ ARROWS[o.value] }}</span>
      </ElRadioButton>
    </ElRadioGroup>
    <ElSelect
      v-else-if="field.control === 'choice'"
      :model-value="String(value)"
      :aria-label="field.title"
      @update:model-value="(v: string) => emit('change', v)"
    >
      <ElOption v-for="o in field.options" :key="o.value" :value="o.value" :label="o.label" />
    </ElSelect>
    <ElSelect
      v-else-if="field.control === 'target'"
      :empty-values="[null, undefined]"
      :model-value="String(value)"
      :aria-label="field.title"
      @update:model-value="(v: string) => emit('change', v)"
    >
      <ElOption v-if="field.empty" value="" :label="field.empty" />
      <ElOption
        v-for="t in panels()"
        :key="t"
        :value="t"
        :label="t === 'card' ? 'open card' : t === 'figure' ? 'the figure' : t"
      />
      <template v-if="field.name === 'target'">
        <ElOption v-for="w in windows ?? []" :key="w.key" :value="`step:${w.key}`" :label="w.title" />
      </template>
    </ElSelect>
    <ElSelect
      v-else-if="field.control === 'fold'"
      :empty-values="[null, undefined]"
      :model-value="String(value)"
      :aria-label="field.title"
      @update:model-value="(v: string) => emit('change', v)"
    >
      <ElOption v-if="field.empty" value="" :label="field.empty" />
      <ElOption v-for="f in folds" :key="f" :value="f" :label="f" />
    </ElSelect>
    <ElSelect
      v-else-if="['window', 'piece'].includes(field.control)"
      :empty-values="[null, undefined]"
      :model-value="String(value)"
      :aria-label="field.title"
      @update:model-value="(v: string) => emit('change', v)"
    >
      <ElOption v-if="field.empty" value="" :label="field.empty" />
      <ElOption v-for="w in named()" :key="w.key" :value="w.key" :label="w.title" />
    </ElSelect>
    <TextField v-else :model-value="String(value ?? '')" :label="field.title" @update:model-value="(v) => emit('change', v)" />
    <p v-if="trouble && !MEASURED.includes(field.control)" class="message" role="alert">
      {{ trouble }}
    </p>
  </div>
</template>

<style scoped>
.field {
  min-width: 0;
}
.title {
  display: block;
  font-size: 12px;
  color: var(--text-soft);
}
.message {
  color: var(--error);
  font-size: 12.5px;
}
.wide {
  grid-column: 1 / -1;
}
.field :deep(.el-radio-button__inner) {
  padding: 8px 11px;
}
.window,
.named,
.choice {
  grid-column: span 2;
}
.switch {
  grid-column: 1 / -1;
}
</style>
