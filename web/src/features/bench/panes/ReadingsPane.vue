<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatMeasures } from '@/shared/units/figures'

defineProps<{ readings: readonly Schemas['Reading'][]; unit: Unit }>()
</script>

<template>
  <dl v-if="readings.length" class="readings">
    <div v-for="r in readings" :key="r.name">
      <dt>{{ r.name }}</dt>
      <dd>
        <span class="figure">{{ formatMeasures(r.values, r.unit, unit) }}</span>
        <span v-if="r.note" class="soft note">{{ r.note }}</span>
      </dd>
    </div>
  </dl>
  <p v-else class="soft">Readings come with the first step.</p>
</template>

<style scoped>
.readings {
  margin: 0;
}
.readings div {
  display: grid;
  grid-template-columns: 112px 1fr;
  padding: 3px 0;
  border-bottom: 1px solid var(--border);
}
dt {
  color: var(--text-soft);
}
dd {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  align-items: baseline;
}
.figure {
  font-weight: 600;
}
.note {
  font-size: var(--size-small);
}
</style>
