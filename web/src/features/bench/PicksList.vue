<script setup lang="ts">
/** Openings with their areas, the largest first; a press closes one or gives it back. */
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatFigure } from '@/shared/units/figures'

defineProps<{
  candidates: readonly Schemas['CandidateView'][]
  hovered: number
  unit: Unit
}>()
const emit = defineEmits<{ toggle: [index: number]; hover: [index: number] }>()
</script>

<template>
  <div class="picks" aria-label="Openings" role="group">
    <p v-if="!candidates.length" class="soft">There is no opening.</p>
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
      <span class="figure">{{ formatFigure(c.area, 'mm2', unit) }}</span>
      <span class="soft">{{ c.taken ? 'filled' : 'open' }}</span>
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
  font-size: 12px;
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
