<script lang="ts">
export interface PickedOutline {
  values: Record<string, unknown>
  title: string
  picture: string
  view: string
  drawn?: { key: string; outline: { name: string; path: string; rule: string } }
}
</script>

<script setup lang="ts">
/** Choose a figure: parametric, drawn and on the shelf, or read from a file now. */
import { computed, onMounted, ref } from 'vue'
import { sendFile, type Schemas } from '@/shared/api/client'
import { ApiError } from '@/shared/api/errors'
import type { Unit } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import PathPicture from '@/shared/components/PathPicture.vue'
import { tellError } from '@/shared/messages'
import { initialValues } from '@/shared/schemaForm'
import { useShelf } from '@/shared/shelf'
import { formatMeasures } from '@/shared/units/figures'

const props = defineProps<{ unit: Unit }>()
const emit = defineEmits<{ close: []; pick: [outline: PickedOutline] }>()
const catalogue = useCatalogue()
const shelf = useShelf()
const words = ref('')
const found = ref<Schemas['FoundOutlines'] | null>(null)
const fileName = ref('')
const trouble = ref('')
const reading = ref(false)
const input = ref<HTMLInputElement | null>(null)
const search = ref<{ focus(): void } | null>(null)

onMounted(() => Promise.all([catalogue.load(), shelf.load()]).catch(tellError))

const wanted = computed(() => words.value.toLowerCase().split(/\s+/).filter(Boolean))
const matches = (text: string) => wanted.value.every((w) => text.toLowerCase().includes(w))
const figures = computed(() =>
  (catalogue.data?.figures ?? []).filter((f) => f.picture && matches(`${f.title} ${f.words}`)),
)
const drawn = computed(() => shelf.outlines.filter((o) => matches(o.name)))
const largest = computed(() =>
  (found.value?.outlines ?? []).reduce((best, o, i, all) => (o.area > (all[best]?.area ?? 0) ? i : best), 0),
)
/** Big files first by area; more than these are no choice any more. */
const offered = computed(() =>
  (found.value?.outlines ?? [])
    .map((outline, i) => ({ outline, i }))
    .sort((a, b) => b.outline.area - a.outline.area)
    .slice(0, 60),
)

const viewOf = (box: readonly number[]) =>
  `${box[0]! - 2} ${box[1]! - 2} ${box[2]! - box[0]! + 4} ${box[3]! - box[1]! + 4}`

function pickFigure(figure: Schemas['FigureKind']) {
  emit('pick', {
    values: initialValues(figure.form),
    title: figure.title,
    picture: figure.picture!.path,
    view: viewOf(figure.picture!.box),
  })
}

function pickDrawn(outline: Schemas['ShelfOutline']) {
  emit('pick', {
    values: { kind: 'drawn', ref: outline.key, width: 0, height: 0 },
    title: outline.name,
    picture: outline.picture.path,
    view: viewOf(outline.picture.box),
    drawn: { key: outline.key, outline: { name: outline.name, path: outline.path, rule: outline.rule } },
  })
}

async function read(file: File | undefined) {
  if (!file) return
  trouble.value = ''
  found.value = null
  fileName.value = file.name
  reading.value = true
  try {
    found.value = await sendFile<Schemas['FoundOutlines']>('/api/read-outlines', file)
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    trouble.value = error.text
  } finally {
    reading.value = false
    if (input.value) input.value.value = ''
  }
}

async function pickFound(outline: Schemas['FoundOutline']) {
  const base = fileName.value.replace(/\.[^.]*$/, '')
  const plain = /^(path|rect|circle|ellipse|polygon|polyline)\d*$/i.test(outline.name)
  const name = (plain ? base : outline.name).slice(0, 80) || 'Outline'
  try {
    pickDrawn(await shelf.keepOutline({ name, path: outline.path, rule: 'nonzero' }))
  } catch (error) {
    tellError(error)
  }
}

const sizeOf = (box: readonly number[]) => formatMeasures([box[2]! - box[0]!, box[3]! - box[1]!], 'mm', props.unit)
</script>

<template>
  <ElDialog :model-value="true" title="Choose a figure" width="860" top="6vh" @close="emit('close')" @opened="search?.focus()">
    <div class="bar">
      <ElInput ref="search" v-model="words" placeholder="Search figures" aria-label="Search figures" clearable />
      <input ref="input" class="visually-hidden" type="file" accept=".svg,image/svg+xml" aria-label="SVG file" tabindex="-1" @change="read(($event.target as HTMLInputElement).files?.[0])" />
      <ElButton :loading="reading" @click="input?.click()">Read an SVG file …</ElButton>
    </div>
    <div class="scroll" @dragover.prevent @drop.prevent="read($event.dataTransfer?.files[0])">
      <p v-if="reading" class="soft" aria-busy="true">Reading {{ fileName }} …</p>
      <p v-if="trouble" class="trouble" role="alert"><strong>{{ fileName }}</strong>: {{ trouble }}</p>
      <section v-if="found" aria-label="Outlines in the file">
        <h3>{{ fileName }}: {{ found.outlines.length === 1 ? 'one filled outline' : `${found.outlines.length} filled outlines` }}</h3>
        <ul v-if="found.remarks.length" class="remarks soft">
          <li v-for="r in found.remarks" :key="r">{{ r }}</li>
        </ul>
        <div class="grid">
          <button
            v-for="{ outline, i } in offered"
            :key="i"
            class="plain-button tile"
            :class="{ largest: i === largest }"
            :title="`${outline.nodes} segments, ${outline.openings} openings`"
            @click="pickFound(outline)"
          >
            <span class="picture"><PathPicture :path="outline.picture" :box="outline.box" /></span>
            <strong>{{ outline.name }}</strong>
            <span class="figure soft">{{ sizeOf(outline.box) }}</span>
            <span v-if="i === largest" class="tag">largest</span>
          </button>
        </div>
      </section>
      <section v-if="drawn.length" aria-label="Drawn outlines">
        <h3>Drawn, on your shelf</h3>
        <div class="grid">
          <button v-for="o in drawn" :key="o.id" class="plain-button tile" @click="pickDrawn(o)">
            <span class="picture"><PathPicture :path="o.picture.path" :box="o.picture.box" /></span>
            <strong>{{ o.name }}</strong>
            <span class="figure soft">{{ sizeOf(o.picture.box) }}</span>
          </button>
        </div>
      </section>
      <section v-if="figures.length" aria-label="Figures by their measures">
        <h3>By measures</h3>
        <div class="grid">
          <button v-for="f in figures" :key="f.kind" class="plain-button tile" @click="pickFigure(f)">
            <span class="picture"><PathPicture :path="f.picture!.path" :box="f.picture!.box" /></span>
            <strong>{{ f.title }}</strong>
          </button>
        </div>
      </section>
      <p v-if="!figures.length && !drawn.length" class="soft">No figure is called “{{ words }}”.</p>
    </div>
  </ElDialog>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 12px;
  margin-bottom: 12px;
}
.scroll {
  height: 62vh;
  overflow: auto;
  display: grid;
  align-content: start;
  gap: 18px;
}
h3 {
  font-size: 13px;
  margin-bottom: 8px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(118px, 1fr));
  gap: 10px;
}
.tile {
  position: relative;
  display: grid;
  justify-items: center;
  gap: 2px;
  padding: 8px 6px;
  border: 1px solid var(--border);
  border-radius: 8px;
  text-align: center;
  font-size: 12.5px;
  overflow-wrap: anywhere;
}
.tile:hover,
.largest {
  border-color: var(--accent);
}
.tile .figure {
  font-size: 11px;
}
.tile strong {
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.picture {
  width: 92px;
  height: 76px;
}
.tag {
  position: absolute;
  top: 4px;
  right: 4px;
  padding: 0 6px;
  border-radius: 8px;
  background: var(--accent);
  color: #fff;
  font-size: 11px;
}
.remarks {
  margin: 0 0 8px;
  padding-left: 18px;
  font-size: 12.5px;
}
.trouble {
  color: var(--error);
  overflow-wrap: anywhere;
}
</style>
