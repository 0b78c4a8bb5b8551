<script setup lang="ts">
/** The designs of a job and how many cards of each. */
import { computed, onMounted, ref } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import FoldedPicture from '@/shared/components/FoldedPicture.vue'
import NumberInput from '@/shared/components/NumberInput.vue'
import { tellError } from '@/shared/messages'

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
const set = (design: number, count: number) =>
  emit('change', props.designs.map((d) => (d.design === design ? { design, count } : d)))
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
        <NumberInput :model-value="d.count ?? 1" whole suffix="×" :min="1" :max="2000" :label="$t('Cards of {design}', { design: entry(d.design)?.name ?? $t('the design') })" @update:model-value="(n: number) => set(d.design, n)" />
        <button class="plain-button gone" :aria-label="$t('Take {design} out', { design: entry(d.design)?.name ?? $t('the design') })" @click="remove(d.design)">✕</button>
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
.gone {
  width: 24px;
  height: 24px;
  text-align: center;
  color: var(--text-soft);
}
</style>
