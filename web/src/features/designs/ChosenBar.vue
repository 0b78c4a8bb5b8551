<script setup lang="ts">
/** What is done with all designs that are chosen. */
import { computed } from 'vue'

const props = defineProps<{ count: number; all: number; binned: boolean }>()
const emit = defineEmits<{ act: [action: string]; all: []; none: [] }>()
const ACTIONS = [
  ['sheets', 'Lay out on sheets'],
  ['folder', 'Into a folder …'],
  ['copy', 'Duplicate'],
  ['template', 'Make templates of them'],
  ['files', 'Save as files'],
  ['bin', 'To the bin'],
] as const
const BIN = [
  ['restore', 'Restore'],
  ['delete', 'Delete for good'],
] as const
const actions = computed(() => (props.binned ? BIN : ACTIONS))
</script>

<template>
  <div class="chosen" role="toolbar" :aria-label="`${count} designs chosen`">
    <b class="figure">{{ count }} chosen</b>
    <ElButton v-for="[key, label] in actions" :key="key" size="small" @click="emit('act', key)">{{ label }}</ElButton>
    <span class="spring" />
    <ElButton v-if="count < all" size="small" text @click="emit('all')">Choose all {{ all }}</ElButton>
    <ElButton size="small" text @click="emit('none')">Choose none</ElButton>
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
