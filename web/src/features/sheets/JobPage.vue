<script setup lang="ts">
/** A job: its cards, its sheets, its passes, the cutter. */
import { onMounted, ref, watch } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { t } from '@/shared/words'
import { HelpButton } from '@/features/help'
import BrandMark from '@/shared/components/BrandMark.vue'
import { askText, tell, tellError } from '@/shared/messages'
import CutView from './CutView.vue'
import FilesDialog from './FilesDialog.vue'
import JobDesigns from './JobDesigns.vue'
import JobOptions from './JobOptions.vue'
import JobReadings from './JobReadings.vue'
import PassesView from './PassesView.vue'
import SheetPicture from './SheetPicture.vue'
import SheetStage from './SheetStage.vue'
import { useJob } from './useJob'

const props = defineProps<{ id: number }>()
const router = useRouter()
const work = useJob(props.id)
const { job, sheets, parts, trouble, laying } = work
const view = ref<'sheets' | 'passes' | 'cutter'>('sheets')
const number = ref(0)
const unit = ref<Unit>('mm')
const saving = ref(false)
onMounted(async () => {
  await work.load()
  if (job.value && !job.value.layout && job.value.designs.length && job.value.running === null) void work.layOut()
})
watch(sheets, (now) => (number.value = Math.min(number.value, Math.max(0, now.length - 1))))

async function change(body: Schemas['JobChange']) {
  await work.change(body)
  if (job.value?.designs.length) void work.layOut()
}
async function rename() {
  const name = await askText(t('Rename'), t('New name'), job.value!.name)
  if (name) await work.change({ name })
}
async function keepOffcut() {
  try {
    const kept = await answer(client.POST('/api/jobs/{number}/offcuts', { params: { path: { number: props.id } }, body: { sheet: number.value } }))
    tell(t('What is left of “{name}” can be used by other jobs now.', { name: kept.name }))
  } catch (error) {
    tellError(error)
  }
}
/** A job of its own for a piece that was spoiled, or for its whole card. */
async function makeAgain(index: number, card: boolean) {
  try {
    const body = { sheet: number.value, index, card }
    const made = await answer(client.POST('/api/jobs/{number}/once-more', { params: { path: { number: props.id } }, body }))
    await router.push({ name: 'job', params: { id: made.id } })
  } catch (error) {
    tellError(error)
  }
}
async function copy() {
  try {
    const made = await answer(client.POST('/api/jobs/{number}/copy', { params: { path: { number: props.id } } }))
    await router.push({ name: 'job', params: { id: made.id } })
  } catch (error) {
    tellError(error)
  }
}
</script>

<template>
  <div class="job-page">
    <header class="head">
      <RouterLink to="/jobs" :title="$t('Back to the jobs')"><BrandMark /></RouterLink>
      <h1 v-if="job" class="title"><button class="plain-button name" :title="$t('Rename')" @click="rename">{{ job.name }}</button></h1>
      <ElRadioGroup v-model="view" :aria-label="$t('View')">
        <ElRadioButton value="sheets">{{ $t('Sheets') }}</ElRadioButton>
        <ElRadioButton value="passes" :disabled="!sheets.length">{{ $t('Passes') }}</ElRadioButton>
        <ElRadioButton value="cutter" :disabled="!sheets.length">{{ $t('Cut it') }}</ElRadioButton>
      </ElRadioGroup>
      <span class="spring" />
      <ElRadioGroup v-model="unit" size="small" :aria-label="$t('Unit')">
        <ElRadioButton value="mm">mm</ElRadioButton>
        <ElRadioButton value="in">in</ElRadioButton>
      </ElRadioGroup>
      <HelpButton />
      <ElButton text @click="copy">{{ $t('Duplicate') }}</ElButton>
      <ElButton type="primary" :disabled="!sheets.length" @click="saving = true">{{ $t('Save files …') }}</ElButton>
    </header>
    <p v-if="trouble" class="state" role="alert">{{ trouble }} <ElButton size="small" @click="work.load()">{{ $t('Try again') }}</ElButton></p>
    <template v-else-if="job">
      <div class="body">
        <aside class="side">
          <JobDesigns :designs="job.designs" @change="(designs) => change({ designs })" />
          <JobOptions :job="job" :unit="unit" @change="change" />
        </aside>
        <main>
          <p v-if="job.changed.length && !laying.going()" class="told" role="status">
            {{ $t('Changed since this was laid out: {changed}.', { changed: job.changed.join(', ') }) }} <ElButton size="small" @click="work.layOut()">{{ $t('Lay out again') }}</ElButton>
          </p>
          <p v-if="laying.going()" class="told" role="status">
            {{ $t('Laying out: {said}', { said: laying.run.value?.said || $t('waiting') }) }} <span class="track"><span :style="{ width: `${100 * (laying.run.value?.share ?? 0)}%` }" /></span>
            <ElButton size="small" @click="laying.stop()">{{ $t('Take the best so far') }}</ElButton>
          </p>
          <p v-else-if="laying.trouble.value" class="told wrong" role="alert">{{ laying.trouble.value }}</p>
          <SheetStage v-if="view === 'sheets' && sheets.length" :work="work" :number="number" :unit="unit" @spoiled="makeAgain" />
          <PassesView v-else-if="view === 'passes' && sheets.length" :job="id" :number="number" :revision="job.revision" :machine="job.machine" />
          <CutView v-else-if="view === 'cutter' && sheets.length" :job="id" :number="number" :revision="job.revision" :machine="job.machine" :turned-over="Boolean(sheets[number]?.holes?.length)" />
          <p v-else-if="!laying.going()" class="state soft">{{ job.designs.length ? $t('Nothing is laid out yet.') : $t('Add the cards that are to be made: their pieces come onto sheets by paper.') }}</p>
        </main>
        <nav v-if="sheets.length" class="strip" :aria-label="$t('Sheets')">
          <JobReadings v-if="job.layout" :layout="job.layout" :number="number" :cards="job.designs.reduce((n, d) => n + (d.count ?? 1), 0)" />
          <ElButton v-if="job.sheets_before !== null" size="small" :title="$t('With the cards and options of then; once more brings this one back')" @click="work.back()">{{ $t('Layout before, {n} sheet | Layout before, {n} sheets', { n: job.sheets_before }) }}</ElButton>
          <div class="thumbs">
            <button v-for="(s, i) in sheets" :key="i" class="plain-button thumb" :class="{ chosen: i === number }" :aria-label="$t('Sheet {i}, {paper}', { i: i + 1, paper: s.paper })" :aria-pressed="i === number" :title="s.paper" @click="number = i">
              <SheetPicture :sheet="s" :parts="parts" />
              <span class="paper-name"><span class="figure">{{ i + 1 }}</span> {{ s.paper }}</span>
            </button>
          </div>
          <ElButton size="small" @click="keepOffcut">{{ $t('Keep what is left of sheet {number}', { number: number + 1 }) }}</ElButton>
        </nav>
      </div>
    </template>
    <FilesDialog v-if="saving" :job="id" :sheet="number" :sheets="sheets.length" @close="saving = false" />
  </div>
</template>

<style scoped src="./job.css"></style>
