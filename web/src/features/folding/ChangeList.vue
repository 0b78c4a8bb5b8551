<script setup lang="ts">
/** What became of the steps on another card; figures that stayed as large as they were can be taken along. */
import { computed } from 'vue'
import { decimal } from '@/shared/words'
import type { OtherCard } from './useRefold'
import { inWords } from './useRefold'

const props = defineProps<{ found: Pick<OtherCard, 'kept' | 'changes' | 'factor'>; scalable?: boolean }>()
const emit = defineEmits<{ scale: [factor: number] }>()
const stays = computed(() => props.found.changes.some((c) => c.what === 'stayed'))
</script>

<template>
  <div class="changes">
    <p>{{ inWords(found) }}.</p>
    <ul v-if="found.changes.length">
      <li v-for="c in found.changes" :key="c.step" :class="c.what">
        <strong>{{ c.title }}</strong> {{ c.what === 'off' ? $t('switched off:') : '' }} {{ c.why }}
      </li>
    </ul>
    <ElButton v-if="scalable && stays" size="small" @click="emit('scale', found.factor)">{{ $t('Take them along: {factor} times as large', { factor: decimal(found.factor.toFixed(3)) }) }}</ElButton>
  </div>
</template>

<style scoped>
.changes {
  font-size: var(--size-small);
}
ul {
  margin: 2px 0 0;
  padding-left: 16px;
}
.off {
  color: var(--warning);
}
</style>
