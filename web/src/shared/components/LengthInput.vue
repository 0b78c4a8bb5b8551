<script setup lang="ts">
/** A length: shown in the present unit, typed in any, with sums and fractions. */
import { computed, ref, watch } from 'vue'
import type { Unit } from '@/shared/api/document'
import { LengthError, formatLength, nudge, parseLength } from '@/shared/units/lengths'
import { t } from '@/shared/words'

const props = defineProps<{
  modelValue: number
  unit: Unit
  label: string
  min?: number
  max?: number
  above?: number
  trouble?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number] }>()

const text = ref('')
const typing = ref(false)
const wrong = ref('')
const other = computed<Unit>(() => (props.unit === 'mm' ? 'in' : 'mm'))

watch(
  () => [props.modelValue, props.unit] as const,
  () => {
    if (typing.value && wrong.value) return
    text.value = formatLength(props.modelValue, props.unit, false)
    wrong.value = ''
  },
  { immediate: true },
)

function outOfBounds(value: number): string {
  const say = (v: number) => formatLength(v, props.unit)
  if (props.above !== undefined && value <= props.above) return t('It must be more than {above}.', { above: say(props.above) })
  if (props.min !== undefined && value < props.min) return t('It must be at least {min}.', { min: say(props.min) })
  if (props.max !== undefined && value > props.max) return t('It must be at most {max}.', { max: say(props.max) })
  return ''
}

function take() {
  typing.value = false
  if (text.value === formatLength(props.modelValue, props.unit, false)) {
    wrong.value = ''
    return
  }
  try {
    const value = parseLength(text.value, props.unit)
    wrong.value = outOfBounds(value)
    if (wrong.value) return
    emit('update:modelValue', value)
    text.value = formatLength(value, props.unit, false)
  } catch (error) {
    if (!(error instanceof LengthError)) throw error
    wrong.value = `${error.message} ${error.hint}`
  }
}

function step(event: KeyboardEvent) {
  const direction = event.key === 'ArrowUp' ? 1 : -1
  const value = props.modelValue + direction * nudge(props.unit, event.shiftKey)
  if (!outOfBounds(value)) emit('update:modelValue', Math.round(value * 1e6) / 1e6)
}

/** What was typed is given up; a second time the field is left. */
function giveUp(event: Event) {
  if (text.value === formatLength(props.modelValue, props.unit, false) && !wrong.value) {
    ;(event.target as HTMLElement).blur()
  }
  text.value = formatLength(props.modelValue, props.unit, false)
  wrong.value = ''
}
</script>

<template>
  <div class="length">
    <div class="measure" :class="{ wrong: wrong || trouble }" :title="formatLength(modelValue, other)">
      <input
        v-model="text"
        class="figure"
        type="text"
        inputmode="text"
        autocomplete="off"
        spellcheck="false"
        :aria-label="label"
        :aria-invalid="!!(wrong || trouble)"
        @focus="(typing = true), ($event.target as HTMLInputElement).select()"
        @blur="take"
        @keydown.enter.prevent="take"
        @keydown.escape.stop="giveUp"
        @keydown.up.prevent="step"
        @keydown.down.prevent="step"
      />
      <span class="unit figure">{{ unit }}</span>
      <span class="other figure">{{ formatLength(modelValue, other) }}</span>
    </div>
    <p v-if="wrong || trouble" class="message" role="alert">{{ wrong || trouble }}</p>
  </div>
</template>

<style scoped>
.length {
  container-type: inline-size;
}
@container (max-width: 150px) {
  .other {
    display: none;
  }
}
.unit {
  color: var(--text-soft);
  font-size: var(--size-small);
}
.other {
  color: var(--text-soft);
  font-size: var(--size-figure);
  white-space: nowrap;
  padding-left: 4px;
}
</style>
