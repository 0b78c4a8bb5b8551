<script setup lang="ts">
/** A moment of a design: its folded picture, when it was, and large also its size and checks. */
import { computed, onMounted, shallowRef } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { inSentence } from '@/shared/catalogue'
import { checksInWords } from '@/shared/checks'
import FoldedPicture from '@/shared/components/FoldedPicture.vue'
import { formatMeasures } from '@/shared/units/figures'
import { called, locale } from '@/shared/words'

const props = defineProps<{
  id: number
  version?: Schemas['Version']
  summary?: Schemas['Summary'] | null
  chosen?: boolean
  large?: boolean
  unit?: Unit
}>()
const emit = defineEmits<{ choose: [] }>()
const fetched = shallowRef<Schemas['Summary'] | null>(null)
const seen = computed(() => props.summary ?? fetched.value)

onMounted(async () => {
  if (!props.version) return
  const path = { number: props.id, kept: props.version.kept }
  try {
    fetched.value = await answer(client.GET('/api/designs/{number}/versions/{kept}/summary', { params: { path } }))
  } catch {
    // without a picture it can be gone back to all the same
  }
})
const time = computed(() => (props.version ? new Date(props.version.saved).toLocaleTimeString(locale(), { hour: '2-digit', minute: '2-digit' }) : ''))
</script>

<template>
  <component :is="large ? 'div' : 'button'" class="plain-button moment" :class="{ chosen, large }" :aria-pressed="large ? undefined : chosen" @click="emit('choose')">
    <span class="picture"><FoldedPicture v-if="seen?.picture" :picture="seen.picture" /></span>
    <strong v-if="version?.name">{{ version.name }}</strong>
    <span v-if="version" class="when"><span class="figure">{{ time }}</span> <span class="soft">{{ version.refused ? $t('came too late') : $t('version {number}', { number: version.number }) }}</span></span>
    <template v-if="large && seen">
      <span>{{ called(seen.size) }} {{ inSentence(seen.way) }}, <span class="figure">{{ formatMeasures(seen.closed, 'mm', unit ?? 'mm') }}</span></span>
      <span class="soft">{{ checksInWords(seen) }}</span>
    </template>
  </component>
</template>

<style scoped>
.moment {
  display: grid;
  justify-items: center;
  gap: 2px;
  width: 100%;
  padding: 6px;
  border: 1px solid var(--border);
  border-radius: 8px;
  background: var(--surface);
  font-size: var(--size-small);
  line-height: 1.3;
  text-align: center;
  overflow-wrap: anywhere;
}
.chosen {
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1px var(--accent);
  background: var(--accent-pale);
}
.picture {
  width: 100px;
  height: 70px;
}
.large .picture {
  width: 240px;
  height: 124px;
}
</style>
