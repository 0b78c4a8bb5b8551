<script setup lang="ts">
/** Files of all sheets, or of the one in hand, for the machine. */
import { ref } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import { saveFrom } from '@/shared/files'
import { tellError } from '@/shared/messages'
import { t } from '@/shared/words'
import { useRun } from './useRun'

const props = defineProps<{ job: number; sheet: number; sheets: number }>()
const emit = defineEmits<{ close: [] }>()
type Format = Schemas['FilesWish']['format']
const FORMATS: [Format, string, string][] = [
  ['svg', 'SVG', t('a group for each pass')],
  ['pdf', 'PDF', t('at 1:1, larger sheets over several pages')],
  ['dxf', 'DXF', t('a layer for each pass')],
  ['hpgl', t('Plotter language'), t('for the machine chosen')],
  ['gcode', 'G-code', t('for the machine chosen')],
]
const format = ref<Format>('svg')
const which = ref<'all' | 'one'>('all')
const eachPass = ref(false)
const pageSize = ref<NonNullable<Schemas['FilesWish']['page']>>('own')
const { run, trouble, follow, going } = useRun()

async function save() {
  try {
    const body = { format: format.value, each_pass: eachPass.value, page: pageSize.value, sheet: which.value === 'one' ? props.sheet : null }
    const done = await follow(answer(client.POST('/api/jobs/{number}/files', { params: { path: { number: props.job } }, body })))
    if (!done) return
    saveFrom(`/api/runs/${done.id}/file`)
    emit('close')
  } catch (error) {
    tellError(error)
  }
}
</script>

<template>
  <ElDialog :model-value="true" :title="$t('Files for the machine')" width="460" @close="emit('close')">
    <ElRadioGroup v-model="format" class="formats" :aria-label="$t('Format')">
      <ElRadio v-for="[value, title, about] in FORMATS" :key="value" :value="value"><b>{{ title }}</b> <span class="soft">{{ about }}</span></ElRadio>
    </ElRadioGroup>
    <ElRadioGroup v-model="which" :aria-label="$t('Which sheets')">
      <ElRadio value="all">{{ $t('the sheet, with a page of contents | all {n} sheets, with a page of contents', sheets) }}</ElRadio>
      <ElRadio value="one">{{ $t('sheet {sheet} alone', { sheet: sheet + 1 }) }}</ElRadio>
    </ElRadioGroup>
    <label v-if="format === 'pdf'" class="page-size">{{ $t('Page') }}
      <ElSelect v-model="pageSize" size="small" :aria-label="$t('Page')">
        <ElOption value="own" :label="$t('as large as the sheet')" />
        <ElOption value="a4" :label="$t('A4, several with marks')" />
        <ElOption value="letter" :label="$t('letter, several with marks')" />
        <ElOption value="a3" :label="$t('A3, several with marks')" />
      </ElSelect>
    </label>
    <p><ElCheckbox v-model="eachPass">{{ $t('A file for each pass') }}</ElCheckbox></p>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <template #footer>
      <ElButton @click="emit('close')">{{ $t('Cancel') }}</ElButton>
      <ElButton type="primary" :loading="going()" @click="save">{{ going() ? (run?.said ?? $t('writing')) : $t('Save') }}</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
.formats {
  display: grid;
  justify-items: start;
  margin-bottom: 10px;
}
.page-size {
  display: grid;
  grid-template-columns: 60px 210px;
  align-items: center;
  margin-top: 8px;
}
.trouble {
  color: var(--error);
}
</style>
