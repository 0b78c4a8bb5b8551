<script setup lang="ts">
/** The designs of a job and how many cards of each. */
import { computed, onMounted, ref } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import FoldedPicture from '@/shared/components/FoldedPicture.vue'
import NumberInput from '@/shared/components/NumberInput.vue'
import { tell, tellError } from '@/shared/messages'
import { t } from '@/shared/words'
import { cardsInAll, parseSpares, sparesText } from './spares'

type Wanted = Schemas['JobDesign']
const props = defineProps<{ designs: readonly Wanted[] }>()
const emit = defineEmits<{ change: [designs: Wanted[]] }>()
const known = ref<readonly Schemas['DesignEntry'][]>([])

onMounted(async () => {
  try {
    known.value = await answer(client.GET('/api/designs', { params: { query: { binned: false } } }))
  } catch (error) {
    tellError(error)
  }
})
const entry = (id: number) => known.value.find((e) => e.id === id)
const rest = computed(() => known.value.filter((e) => !e.template && !props.designs.some((d) => d.design === e.id)))
const set = (design: number, change: Partial<Wanted>) =>
  emit('change', props.designs.map((d) => (d.design === design ? { ...d, ...change } : d)))
const name = (design: number) => entry(design)?.name ?? t('the design')
function setSpares(design: number, text: string) {
  const spares = parseSpares(text)
  if (spares) set(design, spares)
  else tell(t('“{text}” is not a number of spares: type it as 2 or 10 %.', { text }), 'warning')
}
const add = (design: number) => emit('change', [...props.designs, { design, count: 1 }])
const remove = (design: number) => emit('change', props.designs.filter((d) => d.design !== design))
</script>

<template>
  <section>
    <h2>{{ $t('Cards') }}</h2>
    <ul>
      <li v-for="d in designs" :key="d.design">
        <span class="picture"><FoldedPicture v-if="entry(d.design)?.summary.picture" :picture="entry(d.design)!.summary.picture!" /></span>
        <span class="name" :title="entry(d.design)?.name">{{ entry(d.design)?.name ?? $t('a design that is gone') }}</span>
        <NumberInput :model-value="d.count ?? 1" whole suffix="×" :min="1" :max="2000" :label="$t('Cards of {design}', { design: name(d.design) })" @update:model-value="(count: number) => set(d.design, { count })" />
        <button class="plain-button gone" :aria-label="$t('Take {design} out', { design: name(d.design) })" @click="remove(d.design)">✕</button>
        <p class="more soft">
          <span v-if="d.pieces?.length" class="pieces" :title="d.pieces.join(', ')">{{ $t('Only {pieces}', { pieces: d.pieces.join(', ') }) }}</span>
          <label>{{ $t('Spares') }} <input class="spares" :value="sparesText(d)" :placeholder="$t('none')" :title="$t('Cards besides: a number, or a share as 10 %')" :aria-label="$t('Spares of {design}', { design: name(d.design) })" @change="setSpares(d.design, ($event.target as HTMLInputElement).value)" /></label>
          <span v-if="cardsInAll(d) !== (d.count ?? 1)" class="figure">{{ $t('{n} in all', { n: cardsInAll(d) }) }}</span>
        </p>
      </li>
    </ul>
    <p v-if="!designs.length" class="soft">{{ $t('Which cards, and how many of each?') }}</p>
    <ElSelect :model-value="undefined" :placeholder="$t('Add a design …')" filterable :aria-label="$t('Add a design')" class="add" @update:model-value="add">
      <ElOption v-for="e in rest" :key="e.id" :value="e.id" :label="e.name" />
    </ElSelect>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 6px;
}
li {
  display: grid;
  grid-template-columns: 38px minmax(0, 1fr) 74px 24px;
  align-items: center;
  gap: 8px;
}
.picture {
  height: 34px;
  display: grid;
  place-items: center;
}
.picture :deep(svg) {
  height: 34px;
  max-width: 38px;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: var(--size-text);
  font-weight: 550;
}
.more {
  grid-column: 2 / -1;
  display: flex;
  align-items: center;
  gap: 8px;
  margin: -4px 0 2px;
  font-size: var(--size-small);
}
.pieces {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.spares {
  width: 52px;
  padding: 1px 6px;
  border: 1px solid var(--border);
  border-radius: var(--radius);
  background: var(--surface);
  font: inherit;
  text-align: right;
}
.gone {
  width: 24px;
  height: 24px;
  text-align: center;
  color: var(--text-soft);
}
</style>
