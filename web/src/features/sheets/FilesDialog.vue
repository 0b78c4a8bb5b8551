<script setup lang="ts">
/** Files of all sheets, or of the one in hand, for the machine. */
import { ref } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import { saveFrom } from '@/shared/files'
import { tellError } from '@/shared/messages'
import { useRun } from './useRun'

const props = defineProps<{ job: number; sheet: number; sheets: number }>()
const emit = defineEmits<{ close: [] }>()
type Format = Schemas['FilesWish']['format']
const FORMATS: [Format, string, string][] = [
  ['svg', 'SVG', 'a group for each pass'],
  ['pdf', 'PDF', 'at 1:1, larger sheets over several pages'],
  ['dxf', 'DXF', 'a layer for each pass'],
  ['hpgl', 'Plotter language', 'for the machine chosen'],
  ['gcode', 'G-code', 'for the machine chosen'],
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
  <ElDialog :model-value="true" title="Files for the machine" width="460" @close="emit('close')">
    <ElRadioGroup v-model="format" class="formats" aria-label="Format">
      <ElRadio v-for="[value, title, about] in FORMATS" :key="value" :value="value"><b>{{ title }}</b> <span class="soft">{{ about }}</span></ElRadio>
    </ElRadioGroup>
    <ElRadioGroup v-model="which" aria-label="Which sheets">
      <ElRadio value="all">{{ sheets === 1 ? 'the sheet' : `all ${sheets} sheets` }}, with a page of contents</ElRadio>
      <ElRadio value="one">sheet {{ sheet + 1 }} alone</ElRadio>
    </ElRadioGroup>
    <label v-if="format === 'pdf'" class="page-size">Page
      <ElSelect v-model="pageSize" size="small" aria-label="Page">
        <ElOption value="own" label="as large as the sheet" />
        <ElOption value="a4" label="A4, several with marks" />
        <ElOption value="letter" label="letter, several with marks" />
        <ElOption value="a3" label="A3, several with marks" />
      </ElSelect>
    </label>
    <p><ElCheckbox v-model="eachPass">A file for each pass</ElCheckbox></p>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <template #footer>
      <ElButton @click="emit('close')">Cancel</ElButton>
      <ElButton type="primary" :loading="going()" @click="save">{{ going() ? (run?.said ?? 'writing') : 'Save' }}</ElButton>
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
