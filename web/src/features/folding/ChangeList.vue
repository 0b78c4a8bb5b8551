<script setup lang="ts">
/** What became of the steps on another card. */
import type { OtherCard } from './useRefold'
import { inWords } from './useRefold'

defineProps<{ found: Pick<OtherCard, 'kept' | 'changes'> }>()
</script>

<template>
  <div class="changes">
    <p>{{ inWords(found) }}.</p>
    <ul v-if="found.changes.length">
      <li v-for="c in found.changes" :key="c.step" :class="c.what">
        <strong>{{ c.title }}</strong> {{ c.what === 'off' ? $t('switched off:') : '' }} {{ c.why }}
      </li>
    </ul>
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
