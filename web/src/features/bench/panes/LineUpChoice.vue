<script setup lang="ts">
/** Things that are lined up by an edge or their middles, or spread out evenly; the one in hand stays where it is. */
import { computed, ref } from 'vue'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import { inRow, t } from '@/shared/words'
import { linedUp, spreadOut, type Boxed, type Edge, type Shifts } from '../commands/lineUp'

const props = defineProps<{ things: readonly (Boxed & { title: string })[]; own: string; unit: Unit }>()
const emit = defineEmits<{ close: []; take: [shifts: Shifts] }>()
const open = ref(true)
const chosen = ref([props.own])
const EDGES: { edge: Edge; word: string }[] = [
  { edge: 'left', word: t('By their left edges') },
  { edge: 'centre', word: t('By their centres') },
  { edge: 'right', word: t('By their right edges') },
  { edge: 'head', word: t('By their heads') },
  { edge: 'middle', word: t('By their middles') },
  { edge: 'foot', word: t('By their feet') },
]
const picked = computed(() => props.things.filter((t) => chosen.value.includes(t.key)))
/** The one in hand stays where it is. */
const anchor = computed(() => picked.value.find((t) => t.key === props.own) ?? picked.value[0])
const at = (t: Boxed) =>
  inRow([0, 1].map((i) => formatLength(t.box[i]!, props.unit, false)))
</script>

<template>
  <ElDialog v-model="open" :title="$t('Line up and spread out')" width="640px" align-center @closed="emit('close')">
    <p class="soft">{{ $t('The others move; what is in hand stays where it is.') }}</p>
    <ElCheckboxGroup v-model="chosen" class="things" :aria-label="$t('Things to line up')">
      <ElCheckbox v-for="thing in things" :key="thing.key" :value="thing.key" :disabled="thing.key === own">
        {{ thing.title }} <span class="soft figure">{{ $t('at {place}', { place: at(thing) }) }}</span>
      </ElCheckbox>
    </ElCheckboxGroup>
    <p v-if="things.length < 2" class="soft">{{ $t('There is no other thing that could be moved yet.') }}</p>
    <div class="acts">
      <ElButton v-for="e in EDGES" :key="e.edge" :disabled="picked.length < 2" @click="emit('take', linedUp(picked, anchor!, e.edge))">{{ e.word }}</ElButton>
      <ElButton :disabled="picked.length < 3" @click="emit('take', spreadOut(picked, 'x'))">{{ $t('Even gaps across') }}</ElButton>
      <ElButton :disabled="picked.length < 3" @click="emit('take', spreadOut(picked, 'y'))">{{ $t('Even gaps downwards') }}</ElButton>
    </div>
  </ElDialog>
</template>

<style scoped>
.things {
  display: grid;
  margin: 10px 0;
}
.acts {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}
.acts > * {
  margin: 0;
}
</style>
