<script setup lang="ts">
/** Nine places of a box. */
import { called } from '@/shared/words'

defineProps<{ modelValue: string; label: string }>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()
const PLACES = [
  'head-left', 'head', 'head-right', 'left', 'centre', 'right', 'foot-left', 'foot', 'foot-right',
]
const word = (place: string) => place.split('-').map(called).join(' ')
</script>

<template>
  <div class="anchor-grid">
    <div class="grid" v-arrows role="radiogroup" :aria-label="label">
      <button
        v-for="p in PLACES"
        :key="p"
        type="button"
        role="radio"
        :aria-checked="modelValue === p"
        :aria-label="word(p)"
        :title="word(p)"
        :class="{ chosen: modelValue === p }"
        @click="emit('update:modelValue', p)"
      />
    </div>
    <span class="soft word">{{ word(modelValue) }}</span>
  </div>
</template>

<style scoped>
.anchor-grid {
  display: grid;
  justify-items: start;
  gap: 1px;
  font-size: var(--size-small);
}
.word {
  line-height: 1.1;
}
.grid {
  display: grid;
  grid-template-columns: repeat(3, 24px);
  border: 1px solid var(--border-strong);
  border-radius: 3px;
  background: var(--surface);
}
button {
  width: 24px;
  height: 24px;
  border: 0;
  background: radial-gradient(circle, var(--ink-3) 0 1.5px, transparent 2px);
  padding: 0;
  cursor: pointer;
}
button:hover {
  background-color: var(--chrome-deep);
}
.chosen {
  background: var(--accent);
}
</style>
