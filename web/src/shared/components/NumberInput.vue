<script setup lang="ts">
/** A plain number that is no length: an angle, an area, a count, a share. */
import { ref, watch } from 'vue'
import { decimal, t } from '@/shared/words'

const props = defineProps<{
  modelValue: number
  whole: boolean
  suffix: string
  label: string
  min?: number
  max?: number
  trouble?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number] }>()
const text = ref('')
const wrong = ref('')

const shown = (value: number) => decimal(Math.round(value * 1000) / 1000)
watch(
  () => props.modelValue,
  (value) => {
    text.value = shown(value)
    wrong.value = ''
  },
  { immediate: true },
)

function check(value: number): string {
  if (!Number.isFinite(value)) return t('“{text}” is no number.', { text: text.value })
  if (props.whole && !Number.isInteger(value)) return t('It must be a whole number.')
  if (props.min !== undefined && value < props.min) return t('It must be at least {min}.', { min: props.min })
  if (props.max !== undefined && value > props.max) return t('It must be at most {max}.', { max: props.max })
  return ''
}

function take() {
  if (text.value === shown(props.modelValue)) return
  const cleaned = text.value.trim().replace(',', '.').replace(/\s*(°|mm²)$/, '')
  const value = cleaned === '' ? NaN : Number(cleaned)
  wrong.value = check(value)
  if (!wrong.value) emit('update:modelValue', value)
}

function step(event: KeyboardEvent) {
  const by = (event.key === 'ArrowUp' ? 1 : -1) * (event.shiftKey ? 10 : 1) * (props.max === undefined || props.max > 2 ? 1 : 0.05)
  const value = Math.round((props.modelValue + by) * 1000) / 1000
  if (!check(value)) emit('update:modelValue', value)
}
</script>

<template>
  <div>
    <div class="measure" :class="{ wrong: wrong || trouble }">
      <input
        v-model="text"
        class="figure"
        inputmode="decimal"
        autocomplete="off"
        :aria-label="label"
        :aria-invalid="!!(wrong || trouble)"
        @focus="($event.target as HTMLInputElement).select()"
        @blur="take"
        @keydown.enter.prevent="take"
        @keydown.up.prevent="step"
        @keydown.down.prevent="step"
      />
      <span v-if="suffix" class="soft figure">{{ suffix }}</span>
    </div>
    <p v-if="wrong || trouble" class="message" role="alert">{{ wrong || trouble }}</p>
  </div>
</template>
