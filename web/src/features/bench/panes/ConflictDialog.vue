<script setup lang="ts">
/** The design was changed elsewhere: both versions are kept, and one is chosen to go on with. */
const emit = defineEmits<{ mine: []; theirs: []; both: [] }>()
</script>

<template>
  <ElDialog :model-value="true" :title="$t('Two versions of this card')" width="460" :close-on-click-modal="false" :show-close="false" :close-on-press-escape="false">
    <p>{{ $t('It was changed elsewhere since you opened it. Nothing has been overwritten; both versions are kept.') }}</p>
    <div class="choices">
      <ElButton type="primary" @click="emit('both')">{{ $t('Keep both: mine becomes a card of its own') }}</ElButton>
      <ElButton @click="emit('mine')">{{ $t('Go on with mine') }}</ElButton>
      <ElButton @click="emit('theirs')">{{ $t('Go on with the other one (undo brings mine back)') }}</ElButton>
    </div>
  </ElDialog>
</template>

<style scoped>
.choices {
  display: grid;
  gap: 8px;
  margin-top: 16px;
}
.choices :deep(.el-button + .el-button) {
  margin-left: 0;
}
</style>
