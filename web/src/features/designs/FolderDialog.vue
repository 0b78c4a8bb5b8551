<script setup lang="ts">
/** Where designs go: a folder that there is, a new one by its name, or none. */
import { ref } from 'vue'

const props = defineProps<{ folders: readonly string[]; now: string; count: number }>()
const emit = defineEmits<{ close: []; take: [folder: string] }>()
const MOST = 60
const name = ref(props.now)
</script>

<template>
  <ElDialog model-value :title="count === 1 ? $t('Into a folder') : $t('{n} designs into a folder', { n: count })" width="380px" @close="emit('close')">
    <form @submit.prevent="emit('take', name.trim())">
      <label>{{ $t('Folder') }}
        <ElInput v-model="name" autofocus :maxlength="MOST" :aria-label="$t('Folder')" :placeholder="$t('none')" clearable />
      </label>
      <div v-if="folders.length" class="known" role="group" :aria-label="$t('Folders that there are')">
        <ElButton v-for="f in folders" :key="f" size="small" :aria-pressed="f === name" @click="name = f">{{ f }}</ElButton>
      </div>
    </form>
    <template #footer>
      <ElButton @click="emit('close')">{{ $t('Cancel') }}</ElButton>
      <ElButton type="primary" @click="emit('take', name.trim())">{{ name.trim() ? $t('Put there') : $t('Take out of its folder') }}</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
label {
  display: grid;
  gap: 4px;
}
.known {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 10px;
}
.known > :deep(.el-button + .el-button) {
  margin-left: 0;
}
</style>
