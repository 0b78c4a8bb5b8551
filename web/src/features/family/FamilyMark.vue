<script setup lang="ts">
/** Says that the design has a family, and how many of its changes the others have not; opens what is offered. */
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import type { Unit } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'
import { changesInWords, useFamily } from './useFamily'

const props = defineProps<{ id: number; savedAt: Date | null; unit: Unit }>()
const FamilyDialog = defineAsyncComponent(() => import('./FamilyDialog.vue'))
const family = useFamily()
const open = ref(false)
const waiting = computed(() => Math.max(0, ...family.members.map((m) => m.changes)))
const title = computed(() => {
  const others = family.members.length === 1 ? 'another design' : `${family.members.length} other designs`
  return waiting.value ? `${changesInWords(waiting.value)} to offer to ${others}` : `In step with ${others}`
})

watch(
  () => [props.id, props.savedAt] as const,
  () => {
    // not to be reached, it is as it was; saving says that already
    family.load(props.id).catch((error: unknown) => {
      if (!(error instanceof ApiError)) throw error
    })
  },
  { immediate: true },
)
</script>

<template>
  <ElButton v-if="family.members.length" text class="family" :title="title" @click="open = true">
    Family <span v-if="waiting" class="badge">{{ waiting }}</span>
  </ElButton>
  <section v-if="open" aria-label="Family"><FamilyDialog :id="id" :unit="unit" @close="open = false" /></section>
</template>

<style scoped>
.family {
  padding: 6px 8px;
  margin: 0;
}
.badge {
  margin-left: 5px;
  padding: 0 6px;
  border-radius: 9px;
  background: var(--accent-pale);
  font-size: var(--size-small);
}
</style>
