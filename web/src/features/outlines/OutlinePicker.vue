<script setup lang="ts">
/** Choose a figure: an artwork of the shelf, a word, one by measures, or one read from a file. */
import { computed, onMounted, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import LayersPicture from '@/shared/components/LayersPicture.vue'
import PathPicture from '@/shared/components/PathPicture.vue'
import { tellError } from '@/shared/messages'
import { initialValues } from '@/shared/form/schemaForm'
import { useShelf, type ShelfArtwork } from '@/shared/shelf'
import { formatMeasures } from '@/shared/units/figures'
import { t } from '@/shared/words'
import { ReadingDialog, type Wish } from '@/features/reading'
import WordPicker from './WordPicker.vue'
import { drawnOutline, figureOutline, PLAIN, type PickedOutline } from './picked'

const props = defineProps<{
  unit: Unit
  card: { name: string; width: number; height: number }
  /** Only artworks can be chosen. */
  artworksOnly?: boolean
}>()
const emit = defineEmits<{ close: []; pick: [outline: PickedOutline] }>()
const catalogue = useCatalogue()
const shelf = useShelf()
const words = ref('')
const file = ref<File | null>(null)
const busy = ref(false)
const input = ref<HTMLInputElement | null>(null)
const search = ref<{ focus(): void } | null>(null)

onMounted(() => Promise.all([catalogue.load(), shelf.load()]).catch(tellError))

const wanted = computed(() => words.value.toLowerCase().split(/\s+/).filter(Boolean))
const matches = (text: string) => wanted.value.every((w) => text.toLowerCase().includes(w))
const figures = computed(() =>
  props.artworksOnly
    ? []
    : (catalogue.data?.figures ?? []).filter((f) => f.picture && f.given_by === 'measures' && matches(`${f.title} ${f.words}`)),
)
const artworks = computed(() => shelf.kept.filter((a) => matches(`${a.name} ${a.tags.join(' ')}`)))
const wordForm = computed(() => catalogue.figureBy('word'))
const withWords = computed(() => !props.artworksOnly && wordForm.value && matches(t('word letter {words}', { words: wordForm.value.words })))

function pickFigure(figure: Schemas['FigureKind']) {
  const outline = figureOutline(figure)
  if (outline) emit('pick', outline)
}

function pickWord(word: Schemas['WordPicture'], text: string) {
  emit('pick', {
    values: { ...initialValues(wordForm.value!.form), text, font: word.font },
    title: `“${text}”`,
    picture: { layers: [{ colour: PLAIN, path: word.path }], box: word.box },
  })
}

async function pickArtwork(row: ShelfArtwork) {
  try {
    emit('pick', drawnOutline(catalogue, await shelf.full(row.id)))
  } catch (error) {
    tellError(error)
  }
}

async function keep(wish: Wish) {
  busy.value = true
  try {
    const kept = await shelf.keepArtwork(wish.drawing, wish.tags, wish.source)
    file.value = null
    emit('pick', drawnOutline(catalogue, kept))
  } catch (error) {
    tellError(error)
  } finally {
    busy.value = false
  }
}

function choose(event: Event) {
  const field = event.target as HTMLInputElement
  file.value = field.files?.[0] ?? null
  field.value = ''
}
</script>

<template>
  <ElDialog :model-value="true" :title="artworksOnly ? $t('Choose an artwork') : $t('Choose a figure')" width="880" top="5vh" @close="emit('close')" @opened="search?.focus()">
    <div class="bar">
      <ElInput ref="search" v-model="words" :placeholder="artworksOnly ? $t('Search artworks') : $t('Search figures')" :aria-label="artworksOnly ? $t('Search artworks') : $t('Search figures')" clearable />
      <input ref="input" class="visually-hidden" type="file" accept=".svg,.svgz,.dxf,.ttf,.otf,.woff,.woff2" :aria-label="$t('Drawing or font file')" tabindex="-1" @change="choose" />
      <ElButton @click="input?.click()">{{ $t('Read a file …') }}</ElButton>
    </div>
    <div class="scroll" @dragover.prevent @drop.prevent="file = $event.dataTransfer?.files[0] ?? null">
      <section v-if="artworks.length" :aria-label="$t('Artworks on your shelf')">
        <h3>{{ $t('On your shelf') }}</h3>
        <div class="grid">
          <button v-for="a in artworks" :key="a.id" class="plain-button tile" :title="a.name" @click="pickArtwork(a)">
            <span class="picture"><LayersPicture :layers="a.picture.layers" :box="a.picture.box" /></span>
            <strong>{{ a.name }}</strong>
            <span class="figure soft">{{ formatMeasures([a.width, a.height], 'mm', unit) }}</span>
            <span v-if="a.picture.layers.length > 1" class="soft small">{{ $t('{n} layers', { n: a.picture.layers.length }) }}</span>
          </button>
        </div>
      </section>
      <WordPicker v-if="withWords" @pick="pickWord" />
      <section v-if="figures.length" :aria-label="$t('Figures by their measures')">
        <h3>{{ $t('By measures') }}</h3>
        <div class="grid">
          <button v-for="f in figures" :key="f.kind" class="plain-button tile" @click="pickFigure(f)">
            <span class="picture"><PathPicture :path="f.picture!.path" :box="f.picture!.box" /></span>
            <strong>{{ f.title }}</strong>
          </button>
        </div>
      </section>
      <p v-if="!figures.length && !artworks.length && !withWords" class="soft">
        {{ words ? $t('Nothing is called “{words}”.', { words }) : $t('The shelf is empty. Read a drawing from a file.') }}
      </p>
    </div>
    <ReadingDialog v-if="file" :file="file" :unit="unit" :card="card" :verb="$t('Keep and choose it')" :busy="busy" append-to-body @close="file = null" @take="keep" />
  </ElDialog>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 12px;
  margin-bottom: 12px;
}
.scroll {
  height: 66vh;
  overflow: auto;
  display: grid;
  align-content: start;
  gap: 20px;
}
h3 {
  font-size: var(--size-text);
  margin-bottom: 8px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(122px, 1fr));
  gap: 10px;
}
.tile {
  display: grid;
  justify-items: center;
  align-content: start;
  gap: 2px;
  padding: 8px 6px;
  border: 1px solid var(--border);
  border-radius: 8px;
  text-align: center;
  font-size: var(--size-small);
  min-width: 0;
}
.tile:hover {
  border-color: var(--accent);
}
.tile .figure,
.small {
  font-size: var(--size-figure);
}
.tile strong {
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.picture {
  width: 96px;
  height: 78px;
}
</style>
