<script setup lang="ts">
/** A figure of the flat view being typed over: Enter takes it, Escape leaves it as it was. */
import { onMounted, ref } from 'vue'
import type { Unit } from '@/shared/api/document'
import { formatLength, LengthError, parseLength } from '@/shared/units/lengths'
import { decimal } from '@/shared/words'
import type { Typed } from './typed'

const props = defineProps<{ typed: Typed; unit: Unit }>()
const emit = defineEmits<{ close: [] }>()

const shown = props.typed.degrees ? decimal(props.typed.value) : formatLength(props.typed.value, props.unit, false)
const text = ref(props.typed.begun ?? shown)
const wrong = ref('')
const field = ref<HTMLInputElement | null>(null)
let done = false

onMounted(() => {
  field.value?.focus()
  if (props.typed.begun === undefined) field.value?.select()
})

function take(leaving = false) {
  if (done) return
  try {
    const figure = parseLength(text.value, props.typed.degrees ? 'mm' : props.unit)
    done = true
    if (text.value !== shown) props.typed.take(figure)
    emit('close')
  } catch (error) {
    if (!(error instanceof LengthError)) throw error
    if (leaving) giveUp()
    else wrong.value = error.message
  }
}
function giveUp() {
  done = true
  emit('close')
}
</script>

<template>
  <form class="type-over" :style="{ left: `${typed.x}px`, top: `${typed.y}px` }" @submit.prevent="take()">
    <input ref="field" v-model="text" class="figure" :aria-label="typed.label" @keydown.esc.stop.prevent="giveUp" @blur="take(true)" />
    <p v-if="wrong" role="alert">{{ wrong }}</p>
  </form>
</template>

<style scoped>
.type-over {
  position: absolute;
  transform: translate(-50%, -50%);
  z-index: 3;
}
input {
  width: 108px;
  padding: 3px 8px;
  border: 2px solid var(--accent);
  border-radius: 8px;
  background: var(--surface);
  font-size: var(--size-text);
  text-align: center;
}
p {
  max-width: 220px;
  padding: 3px 8px;
  border-radius: 6px;
  background: var(--surface);
  color: var(--error);
  font-size: var(--size-small);
}
</style>
