<script setup lang="ts">
/** The layers that were found, the topmost first: chosen, named, put together, taken apart. */
import { computed } from 'vue'
import TextField from '@/shared/components/TextField.vue'
import { t } from '@/shared/words'
import { apart, lifted, MOST_APART, together, type Draft, type Found } from './grouping'

const props = defineProps<{ found: Found }>()
const drafts = defineModel<Draft[]>({ required: true })
const chosen = defineModel<number[]>('chosen', { required: true })

const rows = computed(() => drafts.value.map((draft, i) => ({ draft, i })).reverse())
const one = computed(() => (chosen.value.length === 1 ? chosen.value[0]! : -1))
const canPart = computed(() => {
  const n = drafts.value[one.value]?.shapes.length ?? 0
  return n > 1 && n + drafts.value.length - 1 <= MOST_APART
})
const count = (draft: Draft, of: 'contours' | 'openings') =>
  draft.shapes.reduce((all, n) => all + props.found.shapes[n]![of], 0)
const counted = (draft: Draft) => {
  const [c, o] = [count(draft, 'contours'), count(draft, 'openings')]
  return t('{n} contour | {n} contours', c) + (o ? t(', {n} open inside', { n: o }) : '')
}

function toggle(i: number) {
  chosen.value = chosen.value.includes(i) ? chosen.value.filter((n) => n !== i) : [...chosen.value, i]
}
function change(i: number, values: Partial<Draft>) {
  drafts.value = drafts.value.map((d, n) => (n === i ? { ...d, ...values } : d))
}
function putTogether() {
  const lower = chosen.value.filter((n) => n !== Math.max(...chosen.value)).length
  const top = Math.max(...chosen.value) - lower
  drafts.value = together(drafts.value, chosen.value)
  chosen.value = [top]
}
function takeApart() {
  const [first, n] = [one.value, drafts.value[one.value]!.shapes.length]
  drafts.value = apart(drafts.value, first, props.found)
  chosen.value = Array.from({ length: n }, (_, i) => first + i)
}
function lift(by: 1 | -1) {
  const to = one.value + by
  drafts.value = lifted(drafts.value, one.value, by)
  if (to >= 0 && to < drafts.value.length) chosen.value = [to]
}
</script>

<template>
  <section class="layers" aria-labelledby="layers-heading">
    <div class="line">
      <h3 id="layers-heading">{{ $t('Layers, the topmost first') }}</h3>
      <span class="spring" />
      <ElButton size="small" :disabled="chosen.length < 2" @click="putTogether">{{ $t('Put together') }}</ElButton>
      <ElButton size="small" :disabled="!canPart" @click="takeApart">{{ $t('Take apart') }}</ElButton>
      <ElButton size="small" :disabled="one < 0 || one === drafts.length - 1" :aria-label="$t('Higher')" :title="$t('Higher in the pile')" @click="lift(1)">↑</ElButton>
      <ElButton size="small" :disabled="one < 1" :aria-label="$t('Lower')" :title="$t('Lower in the pile')" @click="lift(-1)">↓</ElButton>
    </div>
    <ul>
      <li v-for="{ draft, i } in rows" :key="`${i}-${draft.shapes[0]}`" :class="{ chosen: chosen.includes(i), left: !draft.kept }">
        <ElCheckbox :model-value="draft.kept" :aria-label="$t('Bring {name} along', { name: draft.name })" @update:model-value="(v) => change(i, { kept: Boolean(v) })" />
        <button class="plain-button pick" :aria-pressed="chosen.includes(i)" :aria-label="$t('Choose {name}', { name: draft.name })" @click="toggle(i)">
          <svg viewBox="0 0 22 16" aria-hidden="true"><rect x="0.5" y="0.5" width="21" height="15" rx="3" :fill="draft.colour" /></svg>
        </button>
        <TextField class="name" :model-value="draft.name" :label="$t('Name of the layer')" @update:model-value="(v) => change(i, { name: v })" />
        <button class="plain-button soft count" tabindex="-1" @click="toggle(i)">{{ counted(draft) }}</button>
      </li>
    </ul>
    <p class="soft hint">{{ $t('Press colours to choose layers; chosen ones stand out in the picture.') }}</p>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  gap: 6px;
}
.line .el-button + .el-button {
  margin-left: 0;
}
h3 {
  font-size: var(--size-text);
}
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
  max-height: max(232px, 37vh);
  overflow: auto;
  border: 1px solid var(--border);
  border-radius: 8px;
}
li {
  display: grid;
  grid-template-columns: 20px 26px minmax(0, 1fr) auto;
  align-items: center;
  gap: 8px;
  padding: 2px 10px;
  border-bottom: 1px solid var(--border);
}
li:last-child {
  border-bottom: 0;
}
li.chosen {
  background: var(--accent-pale);
}
li.left .name,
li.left .count,
li.left .pick {
  opacity: 0.45;
}
.pick svg {
  display: block;
  width: 26px;
  height: 19px;
  stroke: var(--ink-2);
}
.chosen .pick svg {
  stroke: var(--accent);
  stroke-width: 2px;
}
.count {
  font-size: var(--size-small);
  white-space: nowrap;
}
.hint {
  margin-top: 4px;
  font-size: var(--size-small);
}
</style>
