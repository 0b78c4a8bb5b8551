<script setup lang="ts">
/** The parts that a split made: those left over can each be made a piece of its own. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'

const props = defineProps<{ parts: readonly Schemas['PartView'][]; unit: Unit }>()
const emit = defineEmits<{ pieces: [parts: readonly Schemas['PartView'][]] }>()
const left = computed(() => props.parts.filter((p) => !p.kept && !p.piece))
const size = (p: Schemas['PartView']) =>
  [p.box[2] - p.box[0], p.box[3] - p.box[1]].map((v) => formatLength(v, props.unit, false)).join(' × ')
</script>

<template>
  <ul class="parts" :aria-label="$t('Parts')">
    <li v-for="p in parts" :key="p.number">
      <span>{{ $t('Part {number}', { number: p.number }) }}</span>
      <span class="figure soft">{{ size(p) }}</span>
      <span v-if="p.kept" class="soft">{{ $t('stays') }}</span>
      <span v-else-if="p.piece" class="soft">{{ $t('is “{piece}”', { piece: p.piece }) }}</span>
      <ElButton v-else size="small" @click="emit('pieces', [p])">{{ $t('Make it a piece') }}</ElButton>
    </li>
    <li v-if="left.length > 1" class="all">
      <ElButton size="small" @click="emit('pieces', left)">{{ $t('Make pieces of all {n}', { n: left.length }) }}</ElButton>
    </li>
  </ul>
</template>

<style scoped>
.parts {
  display: grid;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 60px 1fr auto;
  align-items: center;
  gap: 8px;
  min-height: 26px;
}
.all {
  grid-template-columns: auto;
  justify-content: end;
}
</style>
