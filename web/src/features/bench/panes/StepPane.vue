<script setup lang="ts">
/** The step in hand: its values, made from its schema, and what can be done with it. */
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { DesignData, StepData, Unit, Values } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import LayersPicture from '@/shared/components/LayersPicture.vue'
import PathPicture from '@/shared/components/PathPicture.vue'
import { provideChoices } from '@/shared/form/choices'
import FieldControl from '@/shared/form/FieldControl.vue'
import { counts, fieldsOf, type Field } from '@/shared/form/schemaForm'
import { useShelf } from '@/shared/shelf'
import { valueAt } from '@/shared/values'
import { t } from '@/shared/words'
import { OutlinePicker, type PickedOutline } from '@/features/outlines'
import LayersControl from './LayersControl.vue'
import PartsList from './PartsList.vue'
import PicksList from './PicksList.vue'
import ToldList from './ToldList.vue'

const props = defineProps<{
  step: StepData
  document: DesignData
  problem: Schemas['ProblemView'] | null
  flat: Schemas['FlatView']
  hovered: number
  unit: Unit
}>()
const emit = defineEmits<{
  change: [values: Values]
  /** A figure for a field, or, with field "ref", an artwork for the step itself. */
  outline: [field: string, picked: PickedOutline]
  toggle: [candidate: number]
  hover: [candidate: number]
  newer: [earlier: string, id: number]
  pieces: [parts: readonly Schemas['PartView'][]]
  lineUp: []
}>()

const catalogue = useCatalogue()
const shelf = useShelf()
const choosing = ref('')
const kind = computed(() => catalogue.step(props.step.kind))
const own = computed(() => (kind.value ? fieldsOf(kind.value.form) : []))
const fields = computed(() => own.value.filter((f) => counts(f, props.step)))
const plain = computed(() => fields.value.filter((f) => !['outline', 'layers', 'picks'].includes(f.control)))
const outlines = computed(() => fields.value.filter((f) => f.control === 'outline'))

/** Values that name an artwork: the step's own, or those of its figure. */
const places = computed(() => {
  const has = (name: string) => Boolean((kind.value?.form.properties as Record<string, unknown> | undefined)?.[name])
  const self = has('ref') ? [{ field: 'ref', values: props.step as Values }] : []
  const figures = outlines.value
    .map((f) => ({ field: f.name, values: valuesOf(f) }))
    .filter((p) => catalogue.figure(String(p.values.kind))?.given_by === 'artwork')
  const named = [...self, ...figures].map((p) => ({ ...p, artwork: props.document.artworks[String(p.values.ref)] }))
  // layers without an artwork of their own are those of the base's
  return has('layers') && !has('ref') ? [{ field: '', values: props.step as Values, artwork: baseArtwork.value }, ...named] : named
})
const baseArtwork = computed(() => {
  const refs = props.document.pieces[0]!.steps.map((s) => String(valueAt(s, 'ref') ?? ''))
  return props.document.artworks[refs.find((ref) => ref in props.document.artworks) ?? '']
})
const artworkAt = (field: string) => places.value.find((p) => p.field === field)?.artwork
const newerOf = (ref_: unknown) => shelf.newer(String(ref_))
const movable = computed(() => props.flat.handles.some((h) => h.shape === 'box'))
const pick = computed(() => props.flat.handles.find((h) => h.shape === 'pick'))
const card = computed(() => props.document.card.size)

const pieces = computed(() => props.document.pieces.map((p) => ({ key: p.id, title: p.name })))
provideChoices(() => ({
  unit: props.unit,
  targets: props.flat.targets,
  offers: props.flat.offers,
  windows: props.flat.windows,
  pieces: pieces.value,
}))
const valuesOf = (field: Field) => (valueAt(props.step, field.name) ?? {}) as Values
const figureOf = (field: Field) => catalogue.figure(String(valuesOf(field).kind))
const figureFields = (field: Field) =>
  figureOf(field) ? fieldsOf(figureOf(field)!.form).filter((f) => f.control !== 'layers') : []
const titleOf = (field: Field) => artworkAt(field.name)?.name ?? figureOf(field)?.title ?? t('none yet')
/** The picture of an artwork in the document, with a box from the shelf's if it is there. */
const pictureOf = (ref_: unknown) => shelf.artworks.find((a) => a.key === ref_ || a.earlier.includes(String(ref_)))?.picture
const troubleAt = (name: string) =>
  props.problem?.field === name ? `${props.problem.message} ${props.problem.hint}` : undefined
/** A trouble that no field of the form can show. */
const loose = computed(() => {
  const p = props.problem
  if (!p) return ''
  const shown = [...plain.value, ...outlines.value.flatMap(figureFields)].some((f) => f.name === p.field)
  return shown ? '' : `${p.message} ${p.hint}`
})

/** A figure's value, or what it is in fact where something else gives the figure its size. */
const figureValue = (field: Field, name: string) => props.flat.sized?.values[`${field.name}.${name}`] ?? valuesOf(field)[name]
function setFigure(field: string, name: string, value: unknown) {
  const { sized } = props.flat
  const path = `${field}.${name}`
  // typed, it counts: the figure's own values give its size from then on
  if (sized && path in sized.values) emit('change', { ...sized.values, ...sized.beside, [path]: value })
  else if (field === 'ref' || !field) emit('change', { [name]: value })
  else emit('change', { [`${field}.${name}`]: value })
}

/** A value of the step's own; measures that count only from now on begin with those that the figure has. */
function setOwn(name: string, value: unknown) {
  const next = { ...props.step, [name]: value }
  const begun = own.value.filter((f) => f.name in props.flat.present && counts(f, next) && !counts(f, props.step))
  emit('change', { [name]: value, ...Object.fromEntries(begun.map((f) => [f.name, props.flat.present[f.name]])) })
}

function take(picked: PickedOutline) {
  emit('outline', choosing.value, picked)
  choosing.value = ''
}
</script>

<template>
  <section class="pane" :aria-label="$t('Step in hand')">
    <p v-if="!step.on" class="off">{{ $t('Switched off: it is passed over.') }}</p>
    <p v-if="loose" class="loose" role="alert">{{ loose }}</p>
    <div v-if="places.some((p) => p.field === 'ref')" class="outline">
      <span v-if="pictureOf(valueAt(step, 'ref'))" class="picture"><LayersPicture :layers="pictureOf(valueAt(step, 'ref'))!.layers" :box="pictureOf(valueAt(step, 'ref'))!.box" /></span>
      <span class="what"><span class="soft">{{ $t('Artwork') }}</span><strong>{{ artworkAt('ref')?.name ?? $t('none yet') }}</strong></span>
      <ElButton size="small" @click="choosing = 'ref'">{{ artworkAt('ref') ? $t('Choose another …') : $t('Choose …') }}</ElButton>
    </div>
    <div v-for="f in outlines" :key="f.name" class="outline">
      <span v-if="pictureOf(valuesOf(f).ref)" class="picture"><LayersPicture :layers="pictureOf(valuesOf(f).ref)!.layers" :box="pictureOf(valuesOf(f).ref)!.box" /></span>
      <span v-else-if="figureOf(f)?.picture" class="picture">
        <PathPicture :path="figureOf(f)!.picture!.path" :box="figureOf(f)!.picture!.box" />
      </span>
      <span class="what"><span class="soft">{{ f.title }}</span><strong :title="titleOf(f)">{{ titleOf(f) }}</strong></span>
      <ElButton size="small" @click="choosing = f.name">{{ $t('Choose another …') }}</ElButton>
    </div>
    <template v-for="p in places" :key="p.field">
      <p v-if="newerOf(p.values.ref)" class="newer">
        {{ $t('The shelf has newer outlines for “{name}”.', { name: newerOf(p.values.ref)!.name }) }}
        <ElButton size="small" @click="emit('newer', String(p.values.ref), newerOf(p.values.ref)!.id)">{{ $t('Use them here') }}</ElButton>
      </p>
      <div v-if="p.artwork && p.artwork.layers.length > 1" class="of-layers">
        <span class="soft">{{ p.field === 'ref' ? $t('Profile of') : $t('Layers') }}</span>
        <LayersControl
          :model-value="(p.values.layers as number[] | undefined) ?? []"
          :artwork="p.artwork"
          :label="$t('Layers')"
          @update:model-value="(v) => setFigure(p.field, 'layers', v)"
        />
      </div>
    </template>
    <div class="fields">
      <template v-for="f in outlines" :key="f.name">
        <FieldControl
          v-for="g in figureFields(f)"
          :key="`${step.id}-${f.name}-${g.name}`"
          :field="g"
          :value="figureValue(f, g.name)"
          :trouble="troubleAt(g.name)"
          @change="(v) => setFigure(f.name, g.name, v)"
        />
      </template>
      <FieldControl
        v-for="f in plain"
        :key="`${step.id}-${f.name}`"
        :field="f"
        :value="valueAt(step, f.name)"
        :trouble="troubleAt(f.name)"
        @change="(v) => setOwn(f.name, v)"
      />
    </div>
    <ElButton v-if="movable" class="line-up" size="small" @click="emit('lineUp')">{{ $t('Line up with others …') }}</ElButton>
    <ToldList :told="flat.told" :unit="unit" />
    <PicksList
      v-if="pick"
      :word="pick.word"
      :candidates="pick.candidates"
      :hovered="hovered"
      :unit="unit"
      @toggle="(i) => emit('toggle', i)"
      @hover="(i) => emit('hover', i)"
    />
    <PartsList v-if="flat.parts.length" :parts="flat.parts" :unit="unit" @pieces="(p) => emit('pieces', p)" />
    <p v-if="kind && !own.length" class="soft">{{ `${kind.description} ${$t('Its measures come from the card: see “Size” in the strip.')}` }}</p>
    <OutlinePicker v-if="choosing" :unit="unit" :card="card" :artworks-only="choosing === 'ref'" @close="choosing = ''" @pick="take" />
  </section>
</template>

<style scoped>
.pane {
  display: grid;
  gap: 7px;
  align-content: start;
}
.fields {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 6px 10px;
}
.fields:empty {
  display: none;
}
.outline {
  display: flex;
  align-items: center;
  gap: 10px;
}
.picture {
  width: 44px;
  height: 36px;
  flex: none;
}
.what {
  flex: 1;
  min-width: 0;
  display: grid;
  line-height: 1.25;
}
.what .soft {
  font-size: var(--size-small);
}
.what strong {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.line-up {
  justify-self: start;
}
.of-layers {
  display: grid;
  grid-template-columns: 62px 1fr;
  font-size: var(--size-small);
}
.newer {
  padding: 4px 10px;
  border-radius: 8px;
  background: var(--accent-pale);
  font-size: var(--size-small);
}
.loose {
  color: var(--error);
}
.off {
  color: var(--warning);
}
</style>
