<script setup lang="ts">
/** Adding pieces: what kinds of layers propose, each as it would look on this card. */
import { computed, onMounted, ref, shallowRef } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'
import { called } from '@/shared/words'
import SheetsPicture from './SheetsPicture.vue'

const props = defineProps<{ document: DesignData; panels: readonly string[]; start: string }>()
const emit = defineEmits<{ close: []; take: [offer: Schemas['OfferView'], of: { document: DesignData; panel: string }] }>()
const panel = ref(props.start)
const offers = shallowRef<readonly Schemas['OfferView'][] | null>(null)
const trouble = ref('')
const words = ref('')
const found = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (offers.value ?? []).filter((o) => wanted.every((w) => `${o.title} ${o.about}`.toLowerCase().includes(w)))
})

/** Of what the offers are. */
let of = { document: props.document, panel: panel.value }
async function load() {
  trouble.value = ''
  offers.value = null
  of = { document: props.document, panel: panel.value }
  try {
    offers.value = await answer(client.POST('/api/offers', { body: of }))
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    trouble.value = error.text
  }
}
onMounted(load)
</script>

<template>
  <ElDialog :model-value="true" :title="$t('Add a piece')" width="860" top="6vh" @close="emit('close')">
    <div class="head">
      <ElInput v-model="words" :placeholder="$t('What lies on the card? For example: mat, insert, word')" :aria-label="$t('Search pieces')" @keydown.enter="found[0] && emit('take', found[0], of)" />
      <label v-if="panels.length > 1">
        <span class="soft">{{ $t('On the panel') }}</span>
        <ElSelect v-model="panel" :aria-label="$t('On the panel')" @change="load">
          <ElOption v-for="p in panels" :key="p" :value="p" :label="called(p)" />
        </ElSelect>
      </label>
    </div>
    <p v-if="trouble" role="alert" class="trouble">{{ trouble }} <ElButton size="small" @click="load">{{ $t('Try again') }}</ElButton></p>
    <p v-else-if="!offers" class="soft waiting" role="status">{{ $t('Looking what goes on this card …') }}</p>
    <p v-else-if="!found.length" class="soft waiting">
      {{ offers.length ? $t('Nothing is called “{words}”. Try a plainer word.', { words }) : $t('The base has no paper yet: build that first.') }}
    </p>
    <div v-else class="grid" role="listbox" :aria-label="$t('Pieces to add')">
      <button v-for="o in found" :key="o.title" class="plain-button tile" role="option" aria-selected="false" @click="emit('take', o, of)">
        <SheetsPicture class="picture" :box="o.box" :sheets="o.sheets" :lit="o.added" />
        <strong>{{ o.title }}</strong>
        <span class="soft">{{ o.about }}</span>
      </button>
    </div>
  </ElDialog>
</template>

<style scoped>
.head {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 14px;
}
.head label {
  display: grid;
  grid-template-columns: auto 150px;
  gap: 8px;
  align-items: center;
}
.grid {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 10px;
  margin-top: 12px;
  max-height: 66vh;
  overflow: auto;
}
.tile {
  display: grid;
  grid-template-rows: 118px auto auto;
  justify-items: center;
  gap: 2px;
  padding: 8px;
  border: 1px solid var(--border);
  border-radius: 8px;
  font-size: var(--size-text);
  text-align: center;
}
.tile:hover,
.tile:focus-visible {
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1px var(--accent);
}
.tile .soft {
  font-size: var(--size-figure);
}
.picture {
  width: 100%;
  height: 112px;
}
.waiting {
  padding: 60px 0;
  text-align: center;
}
.trouble {
  color: var(--error);
}
</style>
