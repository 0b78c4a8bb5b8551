<script setup lang="ts">
/** All pieces of the card in the order in which they lie, from the outside through the base to the inside. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { DesignData, PieceData, Unit, Values } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import LengthInput from '@/shared/components/LengthInput.vue'
import { initialValues } from '@/shared/form/schemaForm'
import { askText } from '@/shared/messages'
import { formatLength } from '@/shared/units/lengths'
import { called, t } from '@/shared/words'
import type { Edit } from '../state/useDocument'
import { pieceOf, setValues } from '../commands/edits'
import { beside, copyPiece, layOn, removePiece, restack, setPiece, type PieceValues } from '../commands/pieceEdits'

const props = defineProps<{
  document: DesignData
  figures: readonly Schemas['PieceFigures'][]
  panels: readonly string[]
  /** The panel that a piece lies on where it names none. */
  front: string
  chosen: string
  unit: Unit
}>()
const emit = defineEmits<{ choose: [piece: string]; change: [edit: Edit]; add: []; papers: [] }>()
const base = computed(() => props.document.pieces[0]!)
const figure = (id: string) => props.figures.find((f) => f.id === id)
const colour = (p: PieceData) => props.document.papers.find((q) => q.id === p.paper)?.outside ?? '#ddd'

const groups = computed(() => {
  const on = (side: PieceData['side']) => props.document.pieces.filter((p) => p.host && p.side === side)
  const high = (p: PieceData) => figure(p.id)?.low ?? p.order
  const byHeight = (a: PieceData, b: PieceData) => high(a) - high(b) || a.order - b.order
  return [
    { title: t('On the outside'), pieces: on('outside').sort(byHeight).reverse() },
    { title: t('Base'), pieces: [base.value] },
    { title: t('On the inside'), pieces: on('inside').sort(byHeight) },
    { title: t('Round the card'), pieces: on('around') },
    { title: t('By themselves'), pieces: props.document.pieces.filter((p) => !p.host && p !== base.value) },
  ].filter((g) => g.pieces.length)
})
const own = computed(() => props.document.pieces.find((p) => p.id === props.chosen) ?? base.value)
const lies = computed(() => Boolean(own.value.host))
const hosts = computed(() => props.document.pieces.slice(0, props.document.pieces.indexOf(own.value)))
const other = computed(() => figure(own.value.id)?.others[0])

/** A change of the piece that is chosen now. */
function ofOwn(edit: (now: DesignData, id: string) => DesignData): Edit {
  const { id } = own.value
  return (now) => edit(now, id)
}
const change = (edit: (now: DesignData, id: string) => DesignData) => emit('change', ofOwn(edit))
const set = (values: PieceValues) => change((now, id) => setPiece(now, id, values))
const stack = (by: 1 | -1) => change((now, id) => restack(now, id, by))
const canStack = (by: 1 | -1) => {
  const row = beside(props.document, own.value)
  return lies.value && Boolean(row[row.indexOf(own.value) + by])
}
function copy(values: PieceValues, start: Values = {}) {
  const { order } = own.value
  let made = ''
  change((now, id) => {
    const [next, key] = copyPiece(now, id, { order: order + 1, ...values })
    made ||= key
    const first = pieceOf(next, key).steps.find((s) => s.on)
    return first ? setValues(next, key, first.id, start) : next
  })
  emit('choose', made)
}
function remove() {
  const edit = ofOwn(removePiece)
  emit('choose', own.value.host || base.value.id)
  emit('change', edit)
}
/** The kind of step that says where on the card the piece lies. */
const laying = useCatalogue().data?.steps.find((s) => s.lays_piece)
function lay() {
  const host = base.value.id
  if (laying) change((now, id) => layOn(now, id, host, { ...initialValues(laying.form), kind: laying.kind }))
}
async function rename() {
  const name = await askText(t('Rename the piece'), t('What is this piece called?'), own.value.name)
  if (name) set({ name: name.slice(0, 60) })
}
function told(p: PieceData): string {
  const f = figure(p.id)
  if (!f) return ''
  if (f.problems) return t('has a step that was passed over')
  const parts = f.parts > 1 ? [t('{n} parts', { n: f.parts })] : []
  const high = f.low === null ? [] : [t('at {place}', { place: formatLength(f.low, props.unit) })]
  return [...high, ...parts].join(', ')
}
</script>

<template>
  <section class="list" :aria-label="$t('Pieces of the card')">
    <header>
      <strong>{{ $t('Pieces') }}</strong>
      <ElButton size="small" type="primary" @click="emit('add')">{{ $t('Add a piece …') }}</ElButton>
    </header>
    <div class="rows">
      <template v-for="g in groups" :key="g.title">
        <h4 class="soft">{{ g.title }}</h4>
        <div v-for="p in g.pieces" :key="p.id" class="row" :class="{ chosen: p.id === chosen, hidden: p.hidden }">
          <button class="plain-button name" :aria-current="p.id === chosen" @click="emit('choose', p.id)">
            <svg viewBox="0 0 10 10" aria-hidden="true"><rect x="0.5" y="0.5" width="9" height="9" rx="2" :fill="colour(p)" /></svg>
            <span>{{ p.name }}</span>
            <small class="soft" :class="{ wrong: figure(p.id)?.problems }">{{ told(p) }}</small>
          </button>
          <button class="plain-button eye" :aria-pressed="p.hidden" :title="p.hidden ? $t('Show it in the pictures') : $t('Leave it out of the pictures')" @click="emit('change', (now) => setPiece(now, p.id, { hidden: !p.hidden }))">
            {{ p.hidden ? $t('hidden') : $t('seen') }}
          </button>
        </div>
      </template>
      <p v-if="document.pieces.length < 2" class="soft nothing">{{ $t('Nothing lies on the base yet: add a mat, an insert, a figure.') }}</p>
    </div>
    <div class="own">
      <strong class="called">{{ own.name }}</strong>
      <label>
        <span>{{ $t('Paper') }}</span>
        <ElSelect size="small" :model-value="own.paper" :aria-label="$t('Paper of the piece')" @update:model-value="(paper: string) => set({ paper })">
          <ElOption v-for="p in document.papers" :key="p.id" :value="p.id" :label="p.name"><i class="dot" :style="{ background: p.outside }" /> {{ p.name }}</ElOption>
        </ElSelect>
      </label>
      <template v-if="lies">
        <label v-if="own.side !== 'around'">
          <span>{{ $t('Lies on') }}</span>
          <ElSelect size="small" :model-value="own.host" :aria-label="$t('Lies on')" @update:model-value="(host: string) => set({ host, panel: '' })">
            <ElOption v-for="h in hosts" :key="h.id" :value="h.id" :label="h.name" />
          </ElSelect>
        </label>
        <label v-if="own.side !== 'around' && own.host === base.id && panels.length">
          <span>{{ $t('Panel') }}</span>
          <ElSelect size="small" :model-value="own.panel || front" :aria-label="$t('Panel')" @update:model-value="(panel: string) => set({ panel })">
            <ElOption v-for="p in panels" :key="p" :value="p" :label="called(p)" />
          </ElSelect>
        </label>
        <label v-if="own.side !== 'around'">
          <span>{{ $t('Side') }}</span>
          <ElSelect size="small" :model-value="own.side" :aria-label="$t('Side')" @update:model-value="(side: PieceData['side']) => set({ side })">
            <ElOption value="outside" :label="$t('outside')" />
            <ElOption value="inside" :label="$t('inside')" />
          </ElSelect>
        </label>
        <label>
          <span>{{ $t('Fixed by') }}</span>
          <ElSelect size="small" :model-value="own.fixing" :aria-label="$t('Fixed by')" @update:model-value="(fixing: PieceData['fixing']) => set({ fixing })">
            <ElOption value="glue" :label="$t('glue')" />
            <ElOption value="pads" :label="$t('pads')" />
            <ElOption value="tucked" :label="$t('tucked in')" />
          </ElSelect>
        </label>
        <label v-if="own.fixing === 'pads'">
          <span>{{ $t('Pads, high') }}</span>
          <LengthInput :model-value="own.pad" :unit="unit" :label="$t('Height of the pads')" :min="0" :max="20" @update:model-value="(pad) => set({ pad })" />
        </label>
      </template>
      <div class="acts">
        <template v-if="lies">
          <button class="plain-button" :disabled="!canStack(1)" :title="$t('One place further from the base')" @click="stack(1)">{{ $t('raise') }}</button>
          <button class="plain-button" :disabled="!canStack(-1)" :title="$t('One place nearer to the base')" @click="stack(-1)">{{ $t('lower') }}</button>
          <button class="plain-button" @click="copy({})">{{ $t('duplicate') }}</button>
          <button v-if="other && own.host === base.id && own.side !== 'around'" class="plain-button" :title="$t('The same on the panel {panel}', { panel: called(other.panel) })" @click="copy({ panel: other.panel }, other.values)">{{ $t('on the {panel} too', { panel: called(other.panel) }) }}</button>
        </template>
        <button v-if="laying && !lies && own !== base" class="plain-button" :title="$t('In the middle of the front; it is moved from there')" @click="lay">{{ $t('lay it on the card') }}</button>
        <button class="plain-button" @click="rename">{{ $t('rename') }}</button>
        <button class="plain-button" :title="$t('The papers of all pieces: change one, or put another in its place')" @click="emit('papers')">{{ $t('all papers …') }}</button>
        <button v-if="own !== base" class="plain-button" @click="remove">{{ $t('remove') }}</button>
      </div>
    </div>
  </section>
</template>

<style scoped src="./pieces.css"></style>
