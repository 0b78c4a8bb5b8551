<script setup lang="ts">
/** Work of before that the server never got: it is offered, and waits until that is decided. */
import { computed } from 'vue'
import { locale } from '@/shared/words'

const props = defineProps<{ at: string }>()
const emit = defineEmits<{ take: []; leave: [] }>()
const when = computed(() => new Date(props.at).toLocaleString(locale(), { dateStyle: 'medium', timeStyle: 'short' }))
</script>

<template>
  <div class="offer" role="region" :aria-label="$t('Work that was not saved')">
    <span>{{ $t('There is work of {when} in this browser that was never saved.', { when }) }}</span>
    <ElButton size="small" type="primary" @click="emit('take')">{{ $t('Go on with it') }}</ElButton>
    <ElButton size="small" @click="emit('leave')">{{ $t('Throw it away') }}</ElButton>
  </div>
</template>

<style scoped>
.offer {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 6px 14px;
  border-bottom: 1px solid var(--border);
  background: var(--surface);
}
</style>
