<script setup lang="ts">
/** The step in hand: its values, made from its schema, and what can be done with it. */
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { DesignData, StepData, Unit } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import PathPicture from '@/shared/components/PathPicture.vue'
import { counts, fieldsOf, type Field } from '@/shared/schemaForm'
import OutlinePicker, { type PickedOutline } from '@/features/outlines/OutlinePicker.vue'
import FieldControl from './FieldControl.vue'

type Values = Readonly<Record<string, unknown>>
const props = defineProps<{
  step: StepData
  document: DesignData
  problem: Schemas['ProblemView'] | null
  targets: readonly string[]
  folds: readonly string[]
  unit: Unit
}>()
const emit = defineEmits<{ change: [values: Values]; outline: [field: string, picked: PickedOutline] }>()

const catalogue = useCatalogue()
const choosing = ref('')
const kind = computed(() => catalogue.step(props.step.kind))
const fields = computed(() =>
  kind.value ? fieldsOf(kind.value.form).filter((f) => counts(f, props.step)) : [],
)
const plain = computed(() => fields.value.filter((f) => f.control !== 'outline'))
const outlines = computed(() => fields.value.filter((f) => f.control === 'outline'))

const valuesOf = (field: Field) => (props.step[field.name] ?? {}) as Record<string, unknown>
const figureOf = (field: Field) => catalogue.figure(String(valuesOf(field).kind))
const drawnOf = (field: Field) => props.document.outlines[String(valuesOf(field).ref)]
const figureFields = (field: Field) => (figureOf(field) ? fieldsOf(figureOf(field)!.form) : [])
const titleOf = (field: Field) => drawnOf(field)?.name ?? figureOf(field)?.title ?? 'none yet'
const troubleAt = (name: string) =>
  props.problem?.field === name ? `${props.problem.message} ${props.problem.hint}` : undefined
/** A trouble that no field of the form can show. */
const loose = computed(() => {
  const p = props.problem
  if (!p) return ''
  const shown = [...plain.value, ...outlines.value.flatMap(figureFields)].some((f) => f.name === p.field)
  return shown ? '' : `${p.message} ${p.hint}`
})

function setFigure(field: Field, name: string, value: unknown) {
  emit('change', { [field.name]: { ...valuesOf(field), [name]: value } })
}

function take(picked: PickedOutline) {
  emit('outline', choosing.value, picked)
  choosing.value = ''
}
</script>

<template>
  <section class="pane" aria-label="Step in hand">
    <p v-if="!step.on" class="off">Switched off: it is passed over.</p>
    <p v-if="loose" class="loose" role="alert">{{ loose }}</p>
    <template v-for="f in outlines" :key="f.name">
      <div class="outline">
        <span v-if="figureOf(f)?.picture" class="picture">
          <PathPicture :path="figureOf(f)!.picture!.path" :box="figureOf(f)!.picture!.box" />
        </span>
        <span class="what"><span class="soft">{{ f.title }}</span><strong :title="titleOf(f)">{{ titleOf(f) }}</strong></span>
        <ElButton size="small" @click="choosing = f.name">Choose another …</ElButton>
      </div>
    </template>
    <div class="fields">
      <template v-for="f in outlines" :key="f.name">
        <FieldControl
          v-for="g in figureFields(f)"
          :key="`${step.id}-${f.name}-${g.name}`"
          :field="g"
          :value="valuesOf(f)[g.name]"
          :unit="unit"
          :targets="targets"
          :folds="folds"
          :trouble="troubleAt(g.name)"
          @change="(v) => setFigure(f, g.name, v)"
        />
      </template>
      <FieldControl
        v-for="f in plain"
        :key="`${step.id}-${f.name}`"
        :field="f"
        :value="step[f.name]"
        :unit="unit"
        :targets="targets"
        :folds="folds"
        :trouble="troubleAt(f.name)"
        @change="(v) => emit('change', { [f.name]: v })"
      />
    </div>
    <p v-if="kind && !fields.length" class="soft">{{ kind.description }} Its measures come from the card: see “Size” in the strip.</p>
    <OutlinePicker v-if="choosing" :unit="unit" @close="choosing = ''" @pick="take" />
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
  font-size: 12px;
}
.what strong {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.loose {
  color: var(--error);
}
.off {
  color: var(--warning);
}
</style>
