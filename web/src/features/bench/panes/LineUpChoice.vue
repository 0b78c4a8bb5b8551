<script setup lang="ts">
/** Things that are lined up by an edge or their middles, or spread out evenly; the one in hand stays where it is. */
import { computed, ref } from 'vue'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import { linedUp, spreadOut, type Boxed, type Edge, type Shifts } from '../commands/lineUp'

const props = defineProps<{ things: readonly (Boxed & { title: string })[]; own: string; unit: Unit }>()
const emit = defineEmits<{ close: []; take: [shifts: Shifts] }>()
const open = ref(true)
const chosen = ref([props.own])
const EDGES: { edge: Edge; word: string }[] = [
  { edge: 'left', word: 'left edges' },
  { edge: 'centre', word: 'centres' },
  { edge: 'right', word: 'right edges' },
  { edge: 'head', word: 'heads' },
  { edge: 'middle', word: 'middles' },
  { edge: 'foot', word: 'feet' },
]
const picked = computed(() => props.things.filter((t) => chosen.value.includes(t.key)))
/** The one in hand stays where it is. */
const anchor = computed(() => picked.value.find((t) => t.key === props.own) ?? picked.value[0])
const at = (t: Boxed) =>
  `${formatLength(t.box[0]!, props.unit, false)}, ${formatLength(t.box[1]!, props.unit, false)}`
</script>

<template>
  <ElDialog v-model="open" title="Line up and spread out" width="640px" align-center @closed="emit('close')">
    <p class="soft">The others move; what is in hand stays where it is.</p>
    <ElCheckboxGroup v-model="chosen" class="things" aria-label="Things to line up">
      <ElCheckbox v-for="t in things" :key="t.key" :value="t.key" :disabled="t.key === own">
        {{ t.title }} <span class="soft figure">at {{ at(t) }}</span>
      </ElCheckbox>
    </ElCheckboxGroup>
    <p v-if="things.length < 2" class="soft">There is no other thing that could be moved yet.</p>
    <div class="acts">
      <ElButton v-for="e in EDGES" :key="e.edge" :disabled="picked.length < 2" @click="emit('take', linedUp(picked, anchor!, e.edge))">By their {{ e.word }}</ElButton>
      <ElButton :disabled="picked.length < 3" @click="emit('take', spreadOut(picked, 'x'))">Even gaps across</ElButton>
      <ElButton :disabled="picked.length < 3" @click="emit('take', spreadOut(picked, 'y'))">Even gaps downwards</ElButton>
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
