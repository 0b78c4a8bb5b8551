<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import type { Envelope, Unit } from '@/shared/api/document'
import { formatMeasures } from '@/shared/units/figures'
import { called } from '@/shared/words'

defineProps<{ readings: readonly Schemas['Reading'][]; envelopes: readonly Schemas['EnvelopeRow'][]; unit: Unit }>()
const emit = defineEmits<{ envelope: [envelope: Envelope]; aim: [figure: string] }>()
</script>

<template>
  <dl v-if="readings.length" class="readings">
    <div v-for="r in readings" :key="r.name">
      <dt>{{ r.name }}</dt>
      <dd>
        <button v-if="r.figure" class="plain-button figure aim" :title="$t('Aim at a figure: which values make it what you want')" @click="emit('aim', r.figure)">{{ formatMeasures(r.values, r.unit, unit) }}</button>
        <span v-else class="figure">{{ formatMeasures(r.values, r.unit, unit) }}</span>
        <span v-if="r.note" class="soft note" :title="r.note">{{ r.note }}</span>
      </dd>
    </div>
    <div v-if="envelopes.length">
      <dt :title="$t('The tightest that takes the card with its slack first')">{{ $t('Envelopes') }}</dt>
      <dd class="envelopes">
        <button
          v-for="e in envelopes"
          :key="e.name"
          class="plain-button envelope"
          :class="{ chosen: e.chosen, small: !e.takes }"
          :aria-pressed="e.chosen"
          :title="e.takes ? $t('Take this envelope') : $t('It does not take the card with its slack')"
          @click="emit('envelope', { name: e.name, width: e.width, height: e.height })"
        >
          {{ called(e.name) }} <span class="figure">{{ formatMeasures(e.room, 'mm', unit) }}</span>
        </button>
      </dd>
    </div>
  </dl>
  <p v-else class="soft">{{ $t('Readings come with the first step.') }}</p>
</template>

<style scoped>
.readings {
  margin: 0;
}
.readings div {
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr);
  align-items: center;
  min-height: 25px;
  line-height: 1.3;
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
.aim {
  min-height: 24px;
  border-bottom: 1px dotted var(--accent);
}
.aim:hover {
  color: var(--accent-strong);
}
.envelopes {
  gap: 2px 4px;
}
.envelope {
  min-height: 24px;
  padding: 0 6px;
  border: 1px solid var(--border);
  border-radius: 6px;
  font-size: var(--size-small);
}
.envelope .figure {
  font-weight: 400;
  color: var(--text-soft);
}
.envelope.chosen {
  border-color: var(--accent);
  background: var(--accent-pale);
}
.envelope.small,
.envelope.small .figure {
  color: var(--error);
}
.note {
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: var(--size-small);
}
</style>
