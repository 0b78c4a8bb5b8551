<script setup lang="ts">
/** A plain number that is no length: an angle, an area, a count, a share. */
import { ref, watch } from 'vue'

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

const shown = (value: number) => String(Math.round(value * 1000) / 1000)
watch(
  () => props.modelValue,
  (value) => {
    text.value = shown(value)
    wrong.value = ''
  },
  { immediate: true },
)

function check(value: number): string {
  if (!Number.isFinite(value)) return `“${text.value}” is no number.`
  if (props.whole && !Number.isInteger(value)) return 'It must be a whole number.'
  if (props.min !== undefined && value < props.min) return `It must be at least ${props.min}.`
  if (props.max !== undefined && value > props.max) return `It must be at most ${props.max}.`
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
    <div class="box" :class="{ wrong: wrong || trouble }">
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

<style scoped>
.box {
  display: flex;
  align-items: baseline;
  height: 32px;
  padding: 0 10px;
  line-height: 30px;
  background: var(--surface);
  border: 1px solid var(--border-strong);
  border-radius: var(--radius);
}
.box:focus-within {
  border-color: var(--accent);
  box-shadow: 0 0 0 1px var(--accent);
}
.wrong {
  border-color: var(--error);
}
input {
  flex: 1;
  min-width: 0;
  border: 0;
  padding: 0;
  background: none;
  outline: none;
  font-size: 13.5px;
  font-weight: 550;
}
.message {
  margin-top: 4px;
  color: var(--error);
  font-size: 12.5px;
}
</style>
