<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import { answer, client } from '@/shared/api/client'
import type { CardSize, DesignData, Folding, Paper, Unit } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import BrandMark from '@/shared/components/BrandMark.vue'
import { tellError } from '@/shared/messages'
import { initialValues } from '@/shared/form/schemaForm'
import { useShelf } from '@/shared/shelf'
import { formatMeasures } from '@/shared/units/figures'
import { t } from '@/shared/words'
import { FoldingForm, WayGrid } from '@/features/folding'
import { HelpButton, useCourse } from '@/features/help'
import { drawnOutline, figureOutline, OutlinePicker, type PickedOutline } from '@/features/outlines'
import { DropHint, ReadingDialog, useFileDrop, type Wish } from '@/features/reading'
import BeginChoice from './BeginChoice.vue'
import BeginPreview from './BeginPreview.vue'
import FigureBar from './FigureBar.vue'
import OwnSizeForm from './OwnSizeForm.vue'
import { PaperChooser } from '@/features/papers'
import SizeGrid from './SizeGrid.vue'
import TemplateDialog from './TemplateDialog.vue'
import TemplateRow from './TemplateRow.vue'
import { useBeginnings } from './useBeginnings'

const UNNAMED = t('New card')
const FIRST_FIGURE = 'heart'
const router = useRouter()
const route = useRoute()
const catalogue = useCatalogue()
const shelf = useShelf()
const name = ref(UNNAMED)
const unit = ref<Unit>('mm')
const size = ref<CardSize | null>(null)
const turned = ref(false)
const folding = ref<Folding | null>(null)
const way = computed(() => catalogue.way(folding.value?.kind ?? ''))
const paper = ref<Paper | null>(null)
const begin = ref('plain')
const picked = ref<PickedOutline | null>(null)
const fits = ref(true)
const margin = ref(0)
const pickerOpen = ref(false)
const ownOpen = ref(false)
const busy = ref(false)
const file = ref<File | null>(null)
const keeping = ref(false)
const { over } = useFileDrop((dropped) => (file.value = dropped))

const course = useCourse()
function chooseSize(chosen: CardSize | null) {
  size.value = chosen
  course.reach('size')
}
watch(begin, (now) => now !== 'plain' && course.reach('begun'))

onMounted(async () => {
  try {
    await Promise.all([catalogue.load(), shelf.load()])
    // what has been chosen while the shelf was still loading stays
    size.value ??= catalogue.data?.sizes.find((s) => s.name === 'A2') ?? catalogue.data?.sizes[0] ?? null
    paper.value ??= shelf.papers[0] ?? null
    folding.value ??= initialValues(catalogue.data?.folding ?? {}) as Folding
    const first = catalogue.data?.figures.find((f) => f.kind === FIRST_FIGURE)
    if (first) picked.value ??= figureOutline(first)
    // from the shelf: the card starts with this artwork
    const wanted = shelf.kept.find((a) => a.id === Number(route.query.artwork))
    if (wanted) take(drawnOutline(catalogue, await shelf.full(wanted.id)))
  } catch (error) {
    tellError(error)
  }
})

const sizes = computed(() => [...(catalogue.data?.sizes ?? []), ...shelf.sizes])
const measures = computed(() => {
  if (!size.value) return ''
  const { width, height } = size.value
  return formatMeasures(turned.value ? [height, width] : [width, height], 'mm', unit.value)
})

const { found, again, busy: computing } = useBeginnings(() => {
  if (!size.value || !paper.value || !folding.value || !picked.value) return null
  const drawn = picked.value.drawn
  // what is not said here the server fills in
  const document: Partial<DesignData> = {
    name: UNNAMED,
    units: unit.value,
    card: { size: size.value, turned: turned.value, folding: folding.value, slack: 2 },
    papers: [paper.value],
    artworks: drawn ? { [drawn.key]: drawn.artwork } : {},
    pieces: [{ paper: paper.value.id } as DesignData['pieces'][number]],
  }
  return { document: document as DesignData, figure: { ...picked.value.values }, margin: margin.value, fits: fits.value }
})
const chosen = computed(() => found.value.find((w) => w.key === begin.value) ?? null)
async function ownSize(own: CardSize) {
  ownOpen.value = false
  try {
    await shelf.keepSize(own)
    size.value = own
  } catch (error) {
    tellError(error)
  }
}

function take(outline: PickedOutline) {
  if (name.value === UNNAMED || name.value === picked.value?.title) name.value = outline.title
  picked.value = outline
  if (begin.value === 'plain') begin.value = 'mirrored'
  pickerOpen.value = false
}

async function keep(wish: Wish) {
  keeping.value = true
  try {
    take(drawnOutline(catalogue, await shelf.keepArtwork(wish.drawing, wish.tags, wish.source)))
    file.value = null
  } catch (error) {
    tellError(error)
  } finally {
    keeping.value = false
  }
}

async function start(make: () => Promise<{ id: number }>) {
  busy.value = true
  try {
    await router.push({ name: 'bench', params: { id: (await make()).id } })
  } catch (error) {
    tellError(error)
  } finally {
    busy.value = false
  }
}

function build() {
  const document = chosen.value?.card?.document
  if (!document) return
  const named = { ...document, name: name.value.trim() || UNNAMED }
  return start(() => answer(client.POST('/api/designs', { body: { document: named } })))
}

/** The template whose size is being asked for. */
const template = shallowRef<{ id: number; document: DesignData } | null>(null)
async function chooseTemplate(id: number) {
  try {
    const { document } = await answer(client.GET('/api/designs/{number}', { params: { path: { number: id } } }))
    template.value = { id, document: document as unknown as DesignData }
  } catch (error) {
    tellError(error)
  }
}
function fromTemplate(wanted: CardSize, along: boolean) {
  if (!template.value) return
  const { id, document } = template.value
  if (wanted === document.card.size)
    return start(() => answer(client.POST('/api/designs/{number}/copy', { params: { path: { number: id }, query: { from_template: true } } })))
  return start(async () => {
    const cards = [{ ...document.card, size: wanted }]
    const [found] = await answer(client.POST('/api/refold', { body: { document, cards, along } }))
    return answer(client.POST('/api/designs', { body: { document: found!.document } }))
  })
}
</script>

<template>
  <div class="page">
    <header class="top">
      <RouterLink to="/" class="home"><BrandMark /></RouterLink>
      <h1 class="visually-hidden">{{ $t('New card') }}</h1>
      <ElInput v-model="name" class="name" :aria-label="$t('Name of the card')" maxlength="120" />
      <span class="spring" />
      <HelpButton />
      <ElRadioGroup v-model="unit" size="small" :aria-label="$t('Unit')">
        <ElRadioButton value="mm">mm</ElRadioButton>
        <ElRadioButton value="in">in</ElRadioButton>
      </ElRadioGroup>
    </header>
    <main class="columns">
      <div class="column">
        <TemplateRow @use="chooseTemplate" />
        <section aria-labelledby="size-heading">
          <div class="line">
            <h2 id="size-heading">{{ $t('Size, in its envelope') }}</h2>
            <span class="spring" />
            <ElSwitch v-model="turned" :active-text="$t('lying')" :aria-label="$t('Lying')" size="small" />
            <span class="figure">{{ measures }}</span>
          </div>
          <SizeGrid :model-value="size" :sizes="sizes" :turned="turned" :unit="unit" aria-labelledby="size-heading" @update:model-value="chooseSize" @own="ownOpen = true" />
        </section>
        <section aria-labelledby="paper-heading">
          <h2 id="paper-heading">{{ $t('Paper') }}</h2>
          <PaperChooser v-model="paper" :unit="unit" folded />
        </section>
      </div>
      <div class="column middle">
        <section aria-labelledby="way-heading">
          <h2 id="way-heading">{{ $t('Way of folding') }}</h2>
          <WayGrid v-if="folding" :model-value="folding.kind" @update:model-value="(kind) => folding && (folding = { ...folding, kind })" />
          <p class="soft told">{{ way?.description }}</p>
          <FoldingForm v-if="folding" v-model="folding" :unit="unit" />
        </section>
      </div>
      <div class="column begin">
        <section aria-labelledby="begin-heading">
          <h2 id="begin-heading">{{ $t('Begin with') }}</h2>
          <FigureBar v-if="picked" v-model:fits="fits" v-model:margin="margin" :picked="picked" :unit="unit" @choose="pickerOpen = true" />
          <BeginChoice v-model="begin" :ways="found" class="choices" />
        </section>
        <BeginPreview v-if="chosen" :way="chosen" :unit="unit" class="grow" />
        <span v-else class="grow" />
        <footer>
          <span v-if="computing" class="soft" aria-live="polite">{{ $t('computing …') }}</span>
          <ElButton v-else-if="!found.length" @click="again">{{ $t('Try again') }}</ElButton>
          <ElButton type="primary" size="large" :loading="busy" :disabled="!chosen?.card || computing" @click="build">{{ $t('Build it') }}</ElButton>
        </footer>
      </div>
    <TemplateDialog v-if="template" :document="template.document" :sizes="sizes" :unit="unit" :busy="busy" @close="template = null" @own="ownOpen = true" @build="fromTemplate" />
    <OwnSizeForm v-if="ownOpen" :unit="unit" @close="ownOpen = false" @take="ownSize" />
    <OutlinePicker v-if="pickerOpen && size" :unit="unit" :card="size" @close="pickerOpen = false" @pick="take" />
    <DropHint :over="over" />
    <ReadingDialog v-if="file && size" :file="file" :unit="unit" :card="size" :verb="$t('Keep, and start with it')" :busy="keeping" @close="file = null" @take="keep" />
    </main>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(440px, 1fr) 340px minmax(440px, 500px);
  height: calc(100% - 56px);
}
.column {
  padding: 16px 20px;
  overflow: auto;
  display: grid;
  align-content: start;
  gap: 18px;
  min-height: 0;
}
.middle,
.begin {
  background: var(--surface);
  border-left: 1px solid var(--border);
}
.begin {
  grid-template-rows: auto 1fr auto;
  align-content: stretch;
}
.choices {
  margin-top: 10px;
}
.line {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-bottom: 8px;
}
.line h2 {
  margin: 0;
}
h2 {
  margin-bottom: 8px;
}
.told {
  margin: 6px 0;
  font-size: var(--size-small);
}
footer {
  display: flex;
  justify-content: flex-end;
  align-items: center;
  gap: 14px;
}
@media (max-width: 1180px) {
  .columns {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    height: auto;
  }
}
</style>
