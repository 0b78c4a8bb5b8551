<script setup lang="ts">
/** The designs that an artwork is used in. */
import { onMounted, ref } from 'vue'
import { RouterLink } from 'vue-router'
import type { Schemas } from '@/shared/api/client'
import { tellError } from '@/shared/messages'
import { useShelf, type ShelfArtwork } from '@/shared/shelf'

const props = defineProps<{ artwork: ShelfArtwork }>()
const emit = defineEmits<{ close: [] }>()
const designs = ref<readonly Schemas['UsedIn'][] | null>(null)
onMounted(async () => {
  try {
    designs.value = await useShelf().uses(props.artwork.id)
  } catch (error) {
    tellError(error)
    emit('close')
  }
})
</script>

<template>
  <ElDialog :model-value="true" :title="$t('Designs with “{name}”', { name: artwork.name })" width="420" @close="emit('close')">
    <p v-if="!designs" class="soft" aria-busy="true">{{ $t('Looking …') }}</p>
    <ul v-else>
      <li v-for="d in designs" :key="d.id"><RouterLink :to="{ name: 'bench', params: { id: d.id } }">{{ d.name }}</RouterLink></li>
    </ul>
  </ElDialog>
</template>

<style scoped>
ul {
  margin: 0;
  padding-left: 18px;
}
a {
  color: var(--accent-strong);
}
</style>
