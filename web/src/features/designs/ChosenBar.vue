<script setup lang="ts">
/** What is done with all designs that are chosen. */
import { computed } from 'vue'
import { t } from '@/shared/words'

const props = defineProps<{ count: number; all: number; binned: boolean }>()
const emit = defineEmits<{ act: [action: string]; all: []; none: [] }>()
const ACTIONS = [
  ['sheets', t('Lay out on sheets')],
  ['folder', t('Into a folder …')],
  ['copy', t('Duplicate')],
  ['template', t('Make templates of them')],
  ['files', t('Save as files')],
  ['bin', t('To the bin')],
] as const
const BIN = [
  ['restore', t('Restore')],
  ['delete', t('Delete for good')],
] as const
const actions = computed(() => (props.binned ? BIN : ACTIONS))
</script>

<template>
  <div class="chosen" role="toolbar" :aria-label="$t('{n} designs chosen', { n: count })">
    <b class="figure">{{ $t('{n} chosen', { n: count }) }}</b>
    <ElButton v-for="[key, label] in actions" :key="key" size="small" @click="emit('act', key)">{{ label }}</ElButton>
    <span class="spring" />
    <ElButton v-if="count < all" size="small" text @click="emit('all')">{{ $t('Choose all {all}', { all }) }}</ElButton>
    <ElButton size="small" text @click="emit('none')">{{ $t('Choose none') }}</ElButton>
  </div>
</template>

<style scoped>
.chosen {
  position: sticky;
  top: 0;
  z-index: 5;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin: 0 -12px 12px;
  padding: 8px 12px;
  border-radius: 10px;
  background: var(--accent-pale);
}
.chosen > :deep(.el-button + .el-button) {
  margin-left: 0;
}
</style>
