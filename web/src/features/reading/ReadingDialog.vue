<script setup lang="ts">
/** A file read: what was found in one picture, how large it is, its layers; then it is kept. */
import { computed, ref, watch } from 'vue'
import { sendFile } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import type { Drawing } from '@/shared/shelf'
import { ApiError } from '@/shared/api/errors'
import { formatMeasures } from '@/shared/units/figures'
import { t } from '@/shared/words'
import LayerList from './LayerList.vue'
import ReadingPicture from './ReadingPicture.vue'
import SizeChoice from './SizeChoice.vue'
import { coloursOf, MANY_COLOURS, onPapers, PAPER_COUNTS } from './papers'
import { boxOf, drawingOf, draftsOf, totals, type Draft, type Found } from './grouping'

export interface Wish {
  drawing: Drawing
  tags: string[]
  source: string
}

const props = withDefaults(
  defineProps<{
    file: File
    unit: Unit
    /** The closed card that sizes are shown against. */
    card?: { name: string; width: number; height: number }
    /** What the main button does with what is kept. */
    verb: string
    /** Where given, another button that does no more than keep it. */
    alsoKeep?: boolean
    busy: boolean
    /** Where it comes in place of an artwork: that one's name, which stays. */
    instead?: string
  }>(),
  { card: () => ({ name: 'A2', width: 107.95, height: 139.7 }), instead: undefined },
)
const emit = defineEmits<{ close: []; take: [wish: Wish]; keep: [wish: Wish] }>()

const found = ref<Found | null>(null)
const trouble = ref('')
const reading = ref(false)
const drafts = ref<Draft[]>([])
const chosen = ref<number[]>([])
const scale = ref(1)
const name = ref('')
const tags = ref('')
const word = ref(t('Ahoy'))
const lines = ref('auto')

const base = computed(() => props.file.name.replace(/\.[^.]*$/, '').replace(/[-_]+/g, ' ').trim())
const isFont = computed(() => found.value?.kind === 'font')
const sums = computed(() => (found.value ? totals(drafts.value, found.value) : null))
const box = computed(() => (found.value ? boxOf(drafts.value, found.value) : [0, 0, 1, 1]))
const wide = computed(() => Math.max(box.value[2]! - box.value[0]!, 1e-6))
const high = computed(() => Math.max(box.value[3]! - box.value[1]!, 1e-6))

/** How many colours the drawing has, and on how many papers they are put; 0: as drawn. */
const colours = ref(0)
const papers = ref(0)
const counts = computed(() => PAPER_COUNTS.filter((n) => n < colours.value))
function takePapers(count: number) {
  if (!found.value) return
  papers.value = count
  const drawn = draftsOf(found.value)
  drafts.value = count ? onPapers(drawn, found.value, count) : drawn
  chosen.value = []
}

async function read() {
  trouble.value = ''
  reading.value = true
  try {
    const more: Record<string, string> = { text: word.value, lines: lines.value }
    const answer = await sendFile<Found>('/api/read-file', props.file, more)
    // a word set anew, or lines understood another way, keeps the size that was chosen
    const again = found.value !== null
    found.value = answer
    drafts.value = draftsOf(answer)
    colours.value = coloursOf(drafts.value)
    if (colours.value > MANY_COLOURS) takePapers(PAPER_COUNTS[2])
    else papers.value = 0
    chosen.value = []
    if (!again) scale.value = answer.sizes[0]!.scale
    if (answer.kind === 'font' && again) drafts.value = drafts.value.map((d) => ({ ...d, kept: true }))
    if (answer.lines) lines.value = answer.lines
    if (!name.value || answer.kind === 'font') {
      const title = answer.kind === 'font' ? word.value : base.value.charAt(0).toUpperCase() + base.value.slice(1)
      name.value = props.instead ?? (title.slice(0, 80) || t('Artwork'))
    }
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    trouble.value = error.text
    if (error.status !== 422) found.value = null
  } finally {
    reading.value = false
  }
}
watch(() => props.file, read, { immediate: true })

const wish = (): Wish => ({
  drawing: drawingOf(found.value!, drafts.value, name.value.trim().slice(0, 80) || t('Artwork'), scale.value),
  tags: tags.value.split(',').map((t) => t.trim()).filter(Boolean),
  source: props.file.name.slice(0, 120),
})
const ready = computed(() => Boolean(found.value && sums.value?.layers && !reading.value && !trouble.value))
</script>

<template>
  <ElDialog :model-value="true" :title="$t('Read: {name}', { name: file.name })" width="1060" top="4vh" class="reading-dialog" @close="emit('close')">
    <p v-if="reading && !found" class="state soft" aria-busy="true">{{ $t('Reading {name} …', { name: file.name }) }}</p>
    <div v-else-if="!found" class="state">
      <p class="trouble" role="alert">{{ trouble }}</p>
      <p class="soft">{{ $t('SVG and DXF drawings are read, and TTF, OTF, WOFF and WOFF2 fonts.') }}</p>
    </div>
    <div v-else class="columns">
      <section class="seen" :aria-label="$t('What was found')">
        <ReadingPicture :found="found" :drafts="drafts" :in-hand="chosen" class="picture" />
        <p v-if="sums" class="sums">
          <strong>{{ formatMeasures([wide * scale, high * scale], 'mm', unit) }}</strong>
          <span>{{ $t('{n} layer | {n} layers', sums.layers) }}</span>
          <span>{{ $t('{n} contour | {n} contours', sums.contours) }}</span>
          <span>{{ $t('{n} opening | {n} openings', sums.openings) }}</span>
          <span>{{ $t('{n} segment | {n} segments', sums.nodes) }}</span>
          <span v-if="found.open_count" class="open">{{ $t('{n} open line, dashed | {n} open lines, dashed', found.open_count) }}</span>
        </p>
        <ul v-if="found.remarks.length || found.open.length" class="remarks" :aria-label="$t('Remarks')">
          <li v-for="r in found.remarks" :key="r">{{ r }}</li>
          <li v-if="found.open.length">
            {{ $t('Open lines enclose nothing; the gap between their ends is {gaps}.', { gaps: found.open.slice(0, 4).map((o) => formatMeasures([o.gap], 'mm', unit)).join(', ') + (found.open_count > 4 ? ' …' : '') }) }}
          </li>
        </ul>
      </section>
      <section class="choices">
        <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
        <div v-if="isFont" class="row">
          <label for="word">{{ $t('Word or letter') }}</label>
          <ElInput id="word" v-model="word" maxlength="80" @change="read" />
        </div>
        <div v-if="!instead" class="row">
          <label for="artwork-name">{{ $t('Name') }}</label>
          <ElInput id="artwork-name" v-model="name" maxlength="80" />
        </div>
        <div v-if="!instead" class="row">
          <label for="artwork-tags">{{ $t('Tags') }}</label>
          <ElInput id="artwork-tags" v-model="tags" :placeholder="$t('harbour, beach')" maxlength="200" />
        </div>
        <SizeChoice v-model="scale" :width="wide" :height="high" :sizes="found.sizes" :card="card" :unit="unit" :capitals="isFont ? 20 : undefined" />
        <div v-if="found.lines" class="lines">
          <p>{{ $t('Nothing is filled in this drawing. Its lines are') }}</p>
          <ElRadioGroup v-model="lines" :aria-label="$t('Its lines are')" @change="read">
            <ElRadio value="contours">{{ $t('edges to cut along') }}</ElRadio>
            <ElRadio value="painted">{{ $t('strips as wide as drawn') }}</ElRadio>
          </ElRadioGroup>
        </div>
        <div v-if="counts.length > 1 && !isFont" class="papers">
          <p>{{ $t('The drawing has {n} colours. Its layers are cut of', { n: colours }) }}</p>
          <ElRadioGroup :model-value="papers" size="small" :aria-label="$t('Number of papers')" @update:model-value="(n) => takePapers(Number(n))">
            <ElRadioButton v-for="n in counts" :key="n" :value="n">{{ $t('{n} papers', { n }) }}</ElRadioButton>
            <ElRadioButton :value="0">{{ $t('as drawn') }}</ElRadioButton>
          </ElRadioGroup>
        </div>
        <LayerList v-model="drafts" v-model:chosen="chosen" :found="found" />
      </section>
    </div>
    <template #footer>
      <ElButton @click="emit('close')">{{ $t('Cancel') }}</ElButton>
      <ElButton v-if="alsoKeep" :disabled="!ready" :loading="busy" @click="emit('keep', wish())">{{ $t('Keep on the shelf') }}</ElButton>
      <ElButton type="primary" :disabled="!ready" :loading="busy || (reading && Boolean(found))" @click="emit('take', wish())">{{ verb }}</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
.state {
  min-height: 40vh;
  display: grid;
  place-content: center;
  gap: 8px;
  text-align: center;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 22px;
  height: 68vh;
}
.seen {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto auto;
  gap: 8px;
  min-height: 0;
}
.picture {
  min-height: 0;
  padding: 10px;
}
.sums {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  font-size: var(--size-text);
}
.sums .open {
  color: var(--error);
}
.remarks {
  max-height: 92px;
  overflow: auto;
  margin: 0;
  padding: 6px 10px 6px 26px;
  border-radius: 8px;
  background: var(--chrome);
  font-size: var(--size-small);
  overflow-wrap: anywhere;
}
.choices {
  display: grid;
  align-content: start;
  gap: 12px;
  overflow: auto;
  padding-right: 4px;
}
.row {
  display: grid;
  grid-template-columns: 96px 1fr;
  align-items: center;
  font-size: var(--size-text);
}
.lines,
.papers {
  font-size: var(--size-text);
}
.trouble {
  color: var(--error);
  overflow-wrap: anywhere;
}
</style>
