<script setup lang="ts">
/** Templates to start a card from. */
import { onMounted, ref } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import FoldedPicture from '@/shared/components/FoldedPicture.vue'
import { tellError } from '@/shared/messages'

const emit = defineEmits<{ use: [id: number] }>()
const templates = ref<readonly Schemas['DesignEntry'][]>([])

onMounted(async () => {
  try {
    templates.value = await answer(client.GET('/api/designs', { params: { query: { templates: true } } }))
  } catch (error) {
    tellError(error)
  }
})
</script>

<template>
  <section v-if="templates.length" aria-labelledby="templates-heading">
    <h2 id="templates-heading">{{ $t('From a template') }}</h2>
    <div class="row">
      <button v-for="t in templates" :key="t.id" class="plain-button tile" :title="$t('Start a card from {name}', { name: t.name })" @click="emit('use', t.id)">
        <span class="picture"><FoldedPicture v-if="t.summary.picture" :picture="t.summary.picture" /></span>
        <strong>{{ t.name }}</strong>
      </button>
    </div>
  </section>
</template>

<style scoped>
.row {
  display: flex;
  gap: 8px;
  overflow-x: auto;
}
.tile {
  flex: 0 0 108px;
  display: grid;
  justify-items: center;
  gap: 2px;
  padding: 5px;
  background: var(--surface);
  border: 1px solid var(--border);
  border-radius: 8px;
  font-size: var(--size-small);
  line-height: 1.2;
}
.tile:hover {
  border-color: var(--accent);
}
.tile strong {
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-weight: 600;
}
.picture {
  width: 90px;
  height: 52px;
}
</style>
