<script setup lang="ts">
/** A finding with a mend that is worth offering where the card is seen, before anybody looks at the checks. */
import type { Schemas } from '@/shared/api/client'

defineProps<{ finding: Schemas['FindingView']; mend: Schemas['MendView'] }>()
const emit = defineEmits<{ mend: []; leave: [] }>()
</script>

<template>
  <div class="bar" role="status">
    <span>{{ finding.message }}</span>
    <ElButton size="small" type="primary" @click="emit('mend')">{{ mend.title }}</ElButton>
    <ElButton size="small" @click="emit('leave')">{{ $t('leave it so') }}</ElButton>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 5px 14px;
  border-bottom: 1px solid var(--border);
  background: var(--accent-pale);
  font-size: var(--size-text);
}
.bar span {
  flex: 1;
}
.bar :deep(.el-button + .el-button) {
  margin-left: 0;
}
</style>
