<script setup lang="ts">
/** What came of the values of the step in hand. */
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatFigure } from '@/shared/units/figures'

defineProps<{ told: readonly Schemas['ToldView'][]; unit: Unit }>()
</script>

<template>
  <dl v-if="told.length" class="told" :aria-label="$t('What comes of it')">
    <div v-for="t in told" :key="t.name" :title="t.note || undefined">
      <dt>{{ t.name }}</dt>
      <dd class="figure">{{ formatFigure(t.value, t.unit, unit) }}</dd>
    </div>
  </dl>
</template>

<style scoped>
.told {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  margin: 0;
  padding: 5px 10px;
  border-radius: 8px;
  background: var(--chrome-deep);
  font-size: var(--size-small);
}
.told div {
  display: flex;
  gap: 6px;
}
dt {
  color: var(--text-soft);
}
dd {
  margin: 0;
  font-weight: 600;
}
</style>
