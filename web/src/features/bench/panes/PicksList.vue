<script setup lang="ts">
/** Areas that can be picked, with their measure; a press takes one or gives it back. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatFigure } from '@/shared/units/figures'
import { wordsOf } from './picking'

const props = defineProps<{
  word: string
  candidates: readonly Schemas['CandidateView'][]
  hovered: number
  unit: Unit
}>()
const words = computed(() => wordsOf(props.word))
const emit = defineEmits<{ toggle: [index: number]; hover: [index: number] }>()
</script>

<template>
  <div class="picks" :aria-label="words.group" role="group">
    <p v-if="!candidates.length" class="soft">{{ words.none }}</p>
    <button
      v-for="(c, i) in candidates"
      :key="`${c.share}`"
      class="plain-button opening"
      :class="{ taken: c.taken, hovered: hovered === i }"
      :aria-pressed="c.taken"
      @click="emit('toggle', i)"
      @pointerenter="emit('hover', i)"
      @pointerleave="emit('hover', -1)"
    >
      <span class="figure">{{ formatFigure(c.value, c.unit, unit) }}</span>
      <span class="soft">{{ c.taken ? words.taken : words.left }}</span>
    </button>
  </div>
</template>

<style scoped>
.picks {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.opening {
  display: flex;
  gap: 6px;
  padding: 1px 8px;
  border: 1px dashed var(--border-strong);
  border-radius: 11px;
  font-size: var(--size-small);
}
.taken {
  border-style: solid;
  border-color: var(--accent);
  background: var(--accent-pale);
}
.hovered {
  box-shadow: 0 0 0 2px var(--accent);
}
</style>
