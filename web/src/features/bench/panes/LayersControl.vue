<script setup lang="ts">
/** Which layers of an artwork count; none chosen means all. */
import { computed } from 'vue'
import type { Artwork } from '@/shared/api/document'

const props = defineProps<{ modelValue: readonly number[]; artwork: Artwork; label: string }>()
const emit = defineEmits<{ 'update:modelValue': [layers: number[]] }>()

const all = computed(() => props.modelValue.length === 0)
const on = (i: number) => all.value || props.modelValue.includes(i)

function toggle(i: number) {
  const numbers = props.artwork.layers.map((_, n) => n)
  const now = numbers.filter(on)
  const next = now.includes(i) ? now.filter((n) => n !== i) : [...now, i].sort((a, b) => a - b)
  if (!next.length) return
  emit('update:modelValue', next.length === numbers.length ? [] : next)
}
</script>

<template>
  <div class="layers" role="group" :aria-label="label">
    <button
      v-for="(layer, i) in artwork.layers"
      :key="i"
      class="plain-button layer"
      :class="{ on: on(i) }"
      :aria-pressed="on(i)"
      :title="layer.name"
      @click="toggle(i)"
    >
      <svg viewBox="0 0 12 12" aria-hidden="true"><circle cx="6" cy="6" r="5" :fill="layer.colour" /></svg>
      {{ layer.name }}
    </button>
  </div>
</template>

<style scoped>
.layers {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.layer {
  display: flex;
  align-items: center;
  gap: 5px;
  max-width: 150px;
  padding: 1px 8px 1px 5px;
  border: 1px solid var(--border);
  border-radius: 11px;
  font-size: var(--size-small);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  opacity: 0.5;
}
.on {
  border-color: var(--ink-2);
  opacity: 1;
}
svg {
  width: 12px;
  height: 12px;
  flex: none;
  stroke: var(--ink-2);
}
</style>
