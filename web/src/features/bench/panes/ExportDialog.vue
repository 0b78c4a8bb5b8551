<script setup lang="ts">
/** Cut files: the format, what is chosen about it, and once more what the checks say will go wrong. */
import { computed, reactive, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { DesignData, Unit, Values } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import { provideChoices } from '@/shared/form/choices'
import FieldControl from '@/shared/form/FieldControl.vue'
import { counts, fieldsOf, initialValues } from '@/shared/form/schemaForm'
import type { Picture } from '../state/useEvaluation'
import FindingPicture from './FindingPicture.vue'

const props = defineProps<{
  document: DesignData
  findings: readonly Schemas['FindingView'][]
  /** The findings are of before the last change: new ones are being computed. */
  behind: boolean
  /** The finished piece in hand. */
  picture: Picture | undefined
  piece: string
  unit: Unit
  colour: string
  busy: boolean
}>()
const emit = defineEmits<{ close: []; save: [format: string, options: Values]; design: [] }>()

const KEPT = 'stileblade.files'
const catalogue = useCatalogue()
const open = ref(true)
const formats = computed(() => catalogue.data?.formats ?? [])
const form = computed(() => catalogue.data?.file_options ?? {})
const several = props.document.pieces.length > 1
const chosen = reactive<Record<string, unknown>>({ ...initialValues(form.value), format: 'svg', ...kept(), which: several && props.piece === props.document.pieces[0]!.id ? 'beside' : 'one' })
const fields = computed(() =>
  fieldsOf(form.value).filter((f) => counts(f, chosen) && (f.name !== 'which' || several)),
)
provideChoices(() => ({ unit: props.unit }))

/** What was chosen last time, as far as it is still known. */
function kept(): Values {
  try {
    const known = new Set([...fieldsOf(form.value).map((f) => f.name), 'format'])
    const found = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Values
    const values = Object.entries(found).filter(([name]) => known.has(name))
    const read = Object.fromEntries(values)
    if (!formats.value.some((f) => f.extension === read.format)) delete read.format
    return read
  } catch {
    return {}
  }
}

function save() {
  const { format, ...options } = chosen
  try {
    localStorage.setItem(KEPT, JSON.stringify({ ...options, which: undefined, format }))
  } catch {
    // a browser that keeps nothing: it is asked for again next time
  }
  emit('save', String(format), options)
}

const errors = computed(() => props.findings.filter((f) => f.severity === 'error' && !f.accepted))
const warnings = computed(() => props.findings.filter((f) => f.severity === 'warning' && !f.accepted))
const off = computed(() => {
  const piece = props.document.pieces.find((p) => p.id === props.piece)
  return piece?.steps.filter((s) => !s.on).map((s) => catalogue.step(s.kind)?.title ?? s.kind) ?? []
})
</script>

<template>
  <ElDialog v-model="open" :title="$t('Cut files')" width="860px" align-center @closed="emit('close')">
    <form id="cut-files" class="export" @submit.prevent="save">
      <div v-arrows class="formats" role="radiogroup" :aria-label="$t('Format')">
        <button
          v-for="f in formats"
          :key="f.extension"
          type="button"
          role="radio"
          class="plain-button format"
          :aria-checked="chosen.format === f.extension"
          :class="{ chosen: chosen.format === f.extension }"
          @click="chosen.format = f.extension"
        >
          <strong>{{ f.title }}</strong><span class="soft">{{ f.about }}</span>
        </button>
      </div>
      <div class="fields">
        <FieldControl v-for="f in fields" :key="f.name" :field="f" :value="chosen[f.name]" @change="(v) => (chosen[f.name] = v)" />
      </div>
      <p v-if="behind" class="soft" role="status">{{ $t('The card is being computed. What the checks say of it follows.') }}</p>
      <section v-else-if="errors.length" class="wrong" role="alert">
        <h3>{{ errors.length === 1 ? $t('One thing will go wrong:') : $t('{n} things will go wrong:', { n: errors.length }) }}</h3>
        <ul>
          <li v-for="(f, i) in errors.slice(0, 6)" :key="i">
            <FindingPicture v-if="picture && f.piece === piece" :finding="f" :picture="picture" :colour="colour" />
            <span>{{ f.message }} <span class="soft">{{ f.where }}</span></span>
          </li>
        </ul>
        <p v-if="errors.length > 6" class="soft">{{ $t('And {errors} more, under “Checks”.', { errors: errors.length - 6 }) }}</p>
      </section>
      <p v-if="!behind && warnings.length" class="soft">
        {{ warnings.length === 1 ? $t('1 warning remains') : $t('{n} warnings remain', { n: warnings.length }) }}: {{ warnings.slice(0, 3).map((f) => f.message).join(' ') }}
      </p>
      <p v-if="off.length" class="soft">{{ $t('Switched off, and not in the file: {off}.', { off: off.join(', ') }) }}</p>
    </form>
    <template #footer>
      <ElButton text class="itself" :title="$t('To open it again here or elsewhere')" @click="emit('design')">{{ $t('Save the design itself') }}</ElButton>
      <ElButton @click="open = false">{{ $t('Close') }}</ElButton>
      <ElButton type="primary" native-type="submit" form="cut-files" autofocus :loading="busy || behind">{{ errors.length ? $t('Save all the same') : $t('Save') }}</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
.export {
  display: grid;
  gap: 14px;
}
.formats {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 8px;
}
.format {
  display: grid;
  align-content: start;
  gap: 2px;
  padding: 9px 12px;
  border: 1px solid var(--border-strong);
  border-radius: 9px;
  text-align: left;
  line-height: 1.3;
}
.format.chosen {
  border-color: var(--accent);
  background: var(--accent-pale);
}
.fields {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 8px 14px;
}
.fields :deep(.row) {
  grid-column: span 2;
}
.wrong {
  padding: 10px 14px;
  border: 1px solid var(--error);
  border-radius: 9px;
}
.wrong h3 {
  margin: 0 0 6px;
  color: var(--error);
  font-size: var(--size-text);
}
.wrong ul {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 16px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.wrong li {
  display: grid;
  grid-template-columns: auto 1fr;
  align-items: center;
  gap: 10px;
}
.itself {
  float: left;
}
</style>
