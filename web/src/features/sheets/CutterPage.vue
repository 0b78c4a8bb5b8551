<script setup lang="ts">
/** The cutter by itself: any file is sent to it, and it says what would come loose. */
import { computed, onMounted, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { answer, client, sendFile, type Schemas } from '@/shared/api/client'
import BrandMark from '@/shared/components/BrandMark.vue'
import { tell, tellError } from '@/shared/messages'
import { t } from '@/shared/words'
import { DropHint, useFileDrop } from '@/features/reading'
import CutStage from './CutStage.vue'
import type { CutResult } from './types'
import { useRun } from './useRun'

const machines = ref<readonly Schemas['MachineEntry'][]>([])
const machine = ref('plotter')
const jobs = ref<readonly Schemas['JobEntry'][]>([])
const NONE = 'none'
const FILE = 'file'
/** The file of a sheet that was let go beside the file for the cutter. */
const sheetFile = ref<File | null>(null)
/** The job and the sheet, from 0, that files are compared with, as "job:sheet", with ":inside" for its second set-up; or
 * FILE, or NONE. */
const against = ref(NONE)
/** Whether what is shown was compared. */
const compared = ref(false)
const sheets = computed(() =>
  jobs.value.filter((job) => job.sheets).map((job) => ({
    name: job.name,
    sheets: Array.from({ length: job.sheets }, (_, i) => i).flatMap((i) => sheetChoices(job, i)),
  })),
)
/** A sheet, and its second set-up where it is turned over. */
function sheetChoices(job: Schemas['JobEntry'], i: number) {
  const value = `${job.id}:${i}`
  const first = { value, short: t('Sheet {i}', { i: i + 1 }), label: t('{job}, sheet {number}', { job: job.name, number: i + 1 }) }
  if (!job.turned_over.includes(i)) return [first]
  return [first, { value: `${value}:inside`, short: t('Sheet {i}, turned over', { i: i + 1 }), label: t('{job}, sheet {number}, turned over', { job: job.name, number: i + 1 }) }]
}
const result = ref<CutResult | null>(null)
const last = ref<File | null>(null)
const picker = ref<HTMLInputElement | null>(null)
const { run, trouble, follow, stop, going } = useRun()
const { over } = useFileDrop((file) => take(file))
onMounted(async () => {
  try {
    ;[machines.value, jobs.value] = await Promise.all([answer(client.GET('/api/machines')), answer(client.GET('/api/jobs'))])
  } catch (error) {
    tellError(error)
  }
})
/** A sheet's own file is what others are compared with; any other goes to the cutter. */
function take(file: File) {
  if (!file.name.toLowerCase().endsWith('.json')) return void send(file)
  sheetFile.value = file
  against.value = FILE
  if (last.value) void send(last.value)
  else tell(t('Files are compared with “{name}” now: send one.', { name: file.name }))
}
/** What goes with a file, so that it is compared. */
function comparison(): Record<string, string | File> {
  if (against.value === FILE && sheetFile.value) return { sheet_file: sheetFile.value }
  const [job, sheet, inside] = against.value.split(':')
  return sheet ? { job: job!, sheet, inside: String(inside === 'inside') } : {}
}
async function send(file: File) {
  last.value = file
  result.value = null
  const sheetOf = comparison()
  try {
    const found = await follow(sendFile<Schemas['RunView']>('/api/cut-file', file, { machine: machine.value, ...sheetOf }))
    compared.value = Object.keys(sheetOf).length > 0
    if (found) result.value = found.result as unknown as CutResult
  } catch (error) {
    tellError(error)
  }
}
function picked(event: Event) {
  const input = event.target as HTMLInputElement
  const [first] = input.files ?? []
  input.value = ''
  if (first) take(first)
}
const again = () => last.value && send(last.value)
</script>

<template>
  <div class="cutter">
    <header class="head">
      <RouterLink to="/jobs" :title="$t('Back to the jobs')"><BrandMark /></RouterLink>
      <h1 class="title">{{ $t('The cutter') }}</h1>
      <span class="soft file">{{ last?.name }}</span>
      <span class="spring" />
      <ElSelect v-if="sheets.length || sheetFile" v-model="against" class="against" :aria-label="$t('Compare with')" @change="again">
        <ElOption :value="NONE" :label="$t('Compare with no design')" />
        <ElOption v-if="sheetFile" :value="FILE" :label="sheetFile.name" />
        <ElOptionGroup v-for="job in sheets" :key="job.name" :label="job.name">
          <ElOption v-for="one in job.sheets" :key="one.value" :value="one.value" :label="one.label">{{ one.short }}</ElOption>
        </ElOptionGroup>
      </ElSelect>
      <ElSelect v-model="machine" class="machine" :aria-label="$t('Machine')" @change="again">
        <ElOption v-for="m in machines" :key="m.name" :value="m.name" :label="m.title" />
      </ElSelect>
      <input ref="picker" type="file" accept=".json,.svg,.svgz,.dxf,.hpgl,.plt,.gcode,.nc,.ngc,.txt" class="visually-hidden" tabindex="-1" :aria-label="$t('File for the cutter')" @change="picked" />
      <ElButton type="primary" @click="picker?.click()">{{ $t('Send a file …') }}</ElButton>
    </header>
    <main>
    <p v-if="trouble" class="state" role="alert">{{ trouble }}</p>
    <p v-else-if="going()" class="state soft" aria-busy="true">{{ $t('Reading: {said} …', { said: run?.said || $t('waiting') }) }} <span v-if="run?.share" class="figure">{{ Math.round(100 * run.share) }} %</span> <ElButton size="small" @click="stop">{{ $t('Stop') }}</ElButton></p>
    <CutStage v-else-if="result" :result="result" :meant="compared" />
    <div v-else class="state">
      <p>{{ $t('Send any file for a cutter, from here or from elsewhere: plotter language, G-code, SVG or DXF. It is run as a machine would run it, and you are told what would come loose, what stays joined, and what a machine would refuse.') }}</p>
      <p class="soft">{{ $t('A file that was saved with the sheets, its name ends in .sheet.json, is what others are compared with: let it go here, too.') }}</p>
      <ElButton @click="picker?.click()">{{ $t('Send a file …') }}</ElButton>
    </div>
    <DropHint :over="over" :text="$t('Let go to send the file to the cutter')" />
    </main>
  </div>
</template>

<style scoped src="./job.css"></style>
<style scoped>
.cutter {
  display: grid;
  grid-template-rows: 52px minmax(0, 1fr);
  height: 100%;
}
main {
  display: grid;
  min-height: 0;
}
.title {
  font-size: var(--size-heading);
}
.machine,
.against {
  width: 250px;
}
.file {
  max-width: 300px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
