<script setup lang="ts">
/** Says that the design has a family, and how many of its changes the others have not; opens what is offered. */
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import type { Unit } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'
import { t } from '@/shared/words'
import { changesInWords, useFamily } from './useFamily'

const props = defineProps<{ id: number; savedAt: Date | null; unit: Unit }>()
const FamilyDialog = defineAsyncComponent(() => import('./FamilyDialog.vue'))
const family = useFamily()
const open = ref(false)
const waiting = computed(() => Math.max(0, ...family.members.map((m) => m.changes)))
const title = computed(() => {
  const others = family.members.length === 1 ? t('another design') : t('{n} other designs', { n: family.members.length })
  return waiting.value ? t('{changes} to offer to {others}', { changes: changesInWords(waiting.value), others }) : t('In step with {others}', { others })
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
    {{ $t('Family') }} <span v-if="waiting" class="badge">{{ waiting }}</span>
  </ElButton>
  <section v-if="open" :aria-label="$t('Family')"><FamilyDialog :id="id" :unit="unit" @close="open = false" /></section>
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
