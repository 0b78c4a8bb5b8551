<script setup lang="ts">
/** The earlier versions of a design, and those that were refused since another came first. One is taken
 *  back as a change, which can be undone. */
import { onMounted, ref } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'
import { tellError } from '@/shared/messages'

const props = defineProps<{ id: number }>()
const emit = defineEmits<{ close: []; take: [document: DesignData] }>()
const open = ref(true)
const versions = ref<readonly Schemas['Version'][] | null>(null)
const trouble = ref('')

onMounted(async () => {
  try {
    versions.value = await answer(client.GET('/api/designs/{number}/versions', { params: { path: { number: props.id } } }))
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    trouble.value = error.text
  }
})

const when = (version: Schemas['Version']) => new Date(version.saved).toLocaleString([], { dateStyle: 'medium', timeStyle: 'medium' })

async function take(version: Schemas['Version']) {
  try {
    const path = { number: props.id, kept: version.kept }
    const { document } = await answer(client.GET('/api/designs/{number}/versions/{kept}', { params: { path } }))
    emit('take', document)
  } catch (error) {
    tellError(error)
  }
}
</script>

<template>
  <ElDialog v-model="open" title="Earlier versions" width="480" align-center @closed="emit('close')">
    <p v-if="trouble" role="alert">{{ trouble }}</p>
    <p v-else-if="!versions" class="soft" aria-busy="true">Looking …</p>
    <p v-else-if="!versions.length" class="soft">There is no earlier version: each save keeps the one before it.</p>
    <ol v-else class="versions">
      <li v-for="v in versions" :key="v.kept">
        <span class="figure">version {{ v.number }}</span>
        <span>{{ when(v) }}</span>
        <span class="soft note">{{ v.refused ? 'came too late, kept beside' : '' }}</span>
        <ElButton size="small" @click="take(v)">Go back to it</ElButton>
      </li>
    </ol>
    <p class="soft">Going back is a change like any other: undo brings the present version again.</p>
  </ElDialog>
</template>

<style scoped>
.versions {
  display: grid;
  gap: 4px;
  max-height: 52vh;
  margin: 0 0 14px;
  padding: 0;
  overflow: auto;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 88px 190px 1fr auto;
  align-items: center;
  gap: 8px;
  padding: 2px 6px 2px 0;
}
.note {
  font-size: var(--size-small);
}
</style>
