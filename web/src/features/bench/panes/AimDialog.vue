<script setup lang="ts">
/** A figure aimed at: which values of which steps reach it, each with its picture and what else changes. */
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData, Unit } from '@/shared/api/document'
import LengthInput from '@/shared/components/LengthInput.vue'
import NumberInput from '@/shared/components/NumberInput.vue'
import PathPicture from '@/shared/components/PathPicture.vue'
import { tellError } from '@/shared/messages'
import { formatFigure, formatMeasures } from '@/shared/units/figures'

type Proposal = Schemas['ProposalView']
const props = defineProps<{ document: DesignData; piece: string; figure: string; unit: Unit; colour: string }>()
const emit = defineEmits<{ close: []; take: [proposal: Proposal, keep: boolean]; forget: [index: number] }>()

const open = ref(true)
const figures = ref<readonly Schemas['FigureView'][]>([])
const chosen = ref(props.figure)
const relation = ref<'least' | 'exactly' | 'most'>('least')
const target = ref(0)
const found = ref<Schemas['AimView'] | null>(null)
const busy = ref(false)
const keep = ref(false)
let stop: AbortController | null = null

const one = computed(() => figures.value.find((f) => f.key === chosen.value))
const PER_UNIT = computed(() => (one.value?.unit === 'mm2' && props.unit === 'in' ? 645.16 : 1))
const said = (value: number) => formatFigure(value, one.value?.unit ?? 'mm', props.unit)
const value = (p: Proposal, v: number) => formatFigure(v, p.unit, props.unit)
const kept = computed(() => props.document.aims.map((a, index) => ({ ...a, index, title: figures.value.find((f) => f.key === a.figure)?.title ?? a.figure })))

onMounted(async () => {
  try {
    figures.value = await answer(client.POST('/api/figures', { body: { document: props.document, piece: props.piece } }))
    if (!one.value) chosen.value = figures.value[0]?.key ?? ''
    start()
  } catch (error) {
    tellError(error)
  }
})
onBeforeUnmount(() => stop?.abort())
watch(chosen, start)

/** Another figure: aimed at where it is now, until something is typed. */
function start() {
  found.value = null
  target.value = Math.round((one.value?.value ?? 0) * 100) / 100
}

/** Goes on until all that is worth trying was tried, or somebody stops it: what was found by then stays. */
async function find() {
  stop?.abort()
  const own = (stop = new AbortController())
  busy.value = true
  found.value = null
  try {
    const wish = { document: props.document, piece: props.piece, figure: chosen.value, relation: relation.value, target: target.value }
    let tried: Schemas['AimView']['tried'] = []
    for (;;) {
      const more = await answer(client.POST('/api/aim', { body: { ...wish, tried }, signal: own.signal }))
      found.value = more
      if (more.done || more.tried.length === tried.length) break
      tried = more.tried
    }
  } catch (error) {
    if (!own.signal.aborted) tellError(error)
  } finally {
    if (own === stop) busy.value = false
  }
}
/** How much of what may be tried was tried, in per cent. */
const progress = computed(() => (found.value ? Math.round((100 * found.value.evaluations) / found.value.most) : 0))
</script>

<template>
  <ElDialog v-model="open" :title="$t('Aim at a figure')" width="900px" align-center @closed="emit('close')">
    <p v-if="!figures.length" class="soft" aria-busy="true">{{ $t('Measuring the card …') }}</p>
    <form v-else class="wish" @submit.prevent="find">
      <ElSelect v-model="chosen" :aria-label="$t('Figure to aim at')" class="figure-of">
        <ElOption v-for="f in figures" :key="f.key" :value="f.key" :label="`${f.title}, ${formatFigure(f.value, f.unit, unit)}`" />
      </ElSelect>
      <ElRadioGroup v-model="relation" :aria-label="$t('Is to be')">
        <ElRadioButton value="least">{{ $t('at least') }}</ElRadioButton>
        <ElRadioButton value="exactly">{{ $t('exactly') }}</ElRadioButton>
        <ElRadioButton value="most">{{ $t('at most') }}</ElRadioButton>
      </ElRadioGroup>
      <LengthInput v-if="(one?.unit ?? 'mm') === 'mm'" :model-value="target" :unit="unit" :label="$t('Aim')" @update:model-value="(v) => (target = v)" />
      <NumberInput v-else :model-value="target / PER_UNIT" :whole="false" :suffix="one?.unit === 'g' ? 'g' : unit === 'in' ? 'in²' : 'mm²'" :label="$t('Aim')" :min="0" :max="1e7" @update:model-value="(v) => (target = v * PER_UNIT)" />
      <ElButton v-if="busy" @click="stop?.abort()">{{ $t('Stop') }}</ElButton>
      <ElButton v-else type="primary" native-type="submit">{{ $t('Find the values') }}</ElButton>
    </form>
    <div v-if="busy" class="progress" role="progressbar" :aria-label="$t('Solving')" :aria-valuenow="progress" aria-valuemin="0" aria-valuemax="100"><span :style="{ width: `${progress}%` }" /></div>
    <template v-if="found && one">
      <p v-if="found.met" class="good">{{ $t('It is so already: {title} is {now}.', { title: one.title, now: said(found.now ?? 0) }) }}</p>
      <p v-else-if="!found.done" class="soft" role="status">{{ busy ? $t('{n} values tried so far …', { n: found.evaluations }) : $t('Stopped after {n} values.', { n: found.evaluations }) }}</p>
      <p v-else-if="!found.proposals.length" class="soft">{{ $t('No single value changes “{figure}” towards that.', { figure: one.title }) }}</p>
      <p v-else-if="!found.proposals.some((p) => p.met)" class="soft">{{ $t('It cannot be reached by one value alone. These come nearest.') }}</p>
      <div class="proposals">
        <button v-for="(p, i) in found.proposals" :key="i" class="plain-button proposal" @click="emit('take', p, keep)">
          <span class="picture"><PathPicture v-if="p.picture" :path="p.picture.path" :box="p.picture.box" :folds="p.picture.folds" :perforated="p.picture.perforated" :drawn="p.picture.drawn" :colour="colour" /></span>
          <strong>{{ p.title }}</strong>
          <span class="figure">{{ value(p, p.before) }} → {{ value(p, p.value) }}</span>
          <span :class="p.met ? 'good' : 'bad'">{{ one.title }} {{ said(p.figure) }}</span>
          <span class="soft">{{ $t('closed {closed}', { closed: formatMeasures(p.closed, 'mm', unit) }) }}</span>
          <span v-for="w in p.worse" :key="w" class="bad small">{{ w }}</span>
        </button>
      </div>
    </template>
    <template #footer>
      <span class="keep"><ElCheckbox v-model="keep">{{ $t('Keep the aim: it is reached again when something changes') }}</ElCheckbox></span>
      <ElButton @click="open = false">{{ $t('Close') }}</ElButton>
    </template>
    <ul v-if="kept.length" class="kept" :aria-label="$t('Kept aims')">
      <li v-for="k in kept" :key="k.index">
        <span>{{ k.title }} {{ k.relation === 'least' ? $t('at least') : k.relation === 'most' ? $t('at most') : '' }} {{ formatFigure(k.target, 'mm', unit) }}</span>
        <ElButton size="small" text @click="emit('forget', k.index)">{{ $t('Let it go') }}</ElButton>
      </li>
    </ul>
  </ElDialog>
</template>

<style scoped>
.wish {
  display: grid;
  grid-template-columns: 1fr auto 130px auto;
  gap: 12px;
  align-items: start;
}
.progress {
  height: 3px;
  margin-top: 10px;
  background: var(--border);
}
.progress span {
  display: block;
  height: 100%;
  min-width: 4%;
  background: var(--accent);
  transition: width 0.3s;
}
.proposals {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 12px;
  margin-top: 14px;
}
.proposal {
  display: grid;
  align-content: start;
  gap: 2px;
  padding: 8px 12px;
  border: 1.5px solid var(--border);
  border-radius: 8px;
  font-size: var(--size-small);
  text-align: left;
}
.proposal:hover {
  border-color: var(--accent);
}
.picture {
  height: 104px;
}
.good {
  color: var(--good);
}
.bad {
  color: var(--error);
}
.keep {
  float: left;
}
.kept {
  margin: 14px 0 0;
  padding: 0;
  list-style: none;
}
.kept li {
  display: flex;
  gap: 10px;
  align-items: center;
}
</style>
