<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import { answer, client } from '@/shared/api/client'
import type { CardSize, DesignData, Folding, Paper, PieceData, StepData, Unit } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import BrandMark from '@/shared/components/BrandMark.vue'
import { tellError } from '@/shared/messages'
import { initialValues } from '@/shared/form/schemaForm'
import { useShelf } from '@/shared/shelf'
import { formatMeasures } from '@/shared/units/figures'
import { FoldingForm, WayGrid } from '@/features/folding'
import { drawnOutline, OutlinePicker, startOf, type PickedOutline } from '@/features/outlines'
import { DropHint, ReadingDialog, useFileDrop, type Wish } from '@/features/reading'
import OwnSizeForm from './OwnSizeForm.vue'
import PaperChooser from './PaperChooser.vue'
import SizePicture from './SizePicture.vue'
import StartChoice from './StartChoice.vue'

const router = useRouter()
const route = useRoute()
const catalogue = useCatalogue()
const shelf = useShelf()
const name = ref('New card')
const unit = ref<Unit>('mm')
const size = ref<CardSize | null>(null)
const turned = ref(false)
const folding = ref<Folding | null>(null)
const way = computed(() => catalogue.way(folding.value?.kind ?? ''))
const paper = ref<Paper | null>(null)
const start = ref<'plain' | 'shaped'>('plain')
const picked = ref<PickedOutline | null>(null)
const pickerOpen = ref(false)
const ownOpen = ref(false)
const busy = ref(false)
const file = ref<File | null>(null)
const keeping = ref(false)
const { over } = useFileDrop((dropped) => (file.value = dropped))

onMounted(async () => {
  try {
    await Promise.all([catalogue.load(), shelf.load()])
    // what has been chosen while the shelf was still loading stays
    size.value ??= catalogue.data?.sizes.find((s) => s.name === 'A2') ?? catalogue.data?.sizes[0] ?? null
    paper.value ??= shelf.papers[0] ?? null
    folding.value ??= initialValues(catalogue.data?.folding ?? {}) as Folding
    // from the shelf: the card starts with this artwork
    const wanted = shelf.kept.find((a) => a.id === Number(route.query.artwork))
    if (wanted) {
      take(drawnOutline(catalogue, await shelf.full(wanted.id)))
      name.value = wanted.name
    }
  } catch (error) {
    tellError(error)
  }
})

const sizes = computed(() => [...(catalogue.data?.sizes ?? []), ...shelf.sizes])
const scale = computed(() => {
  const longest = Math.max(...sizes.value.map((s) => Math.max(s.height, s.width, s.envelope?.height ?? 0, s.envelope?.width ?? 0)), 1)
  return 106 / longest
})
const measures = computed(() => {
  if (!size.value) return ''
  const { width, height } = size.value
  return formatMeasures(turned.value ? [height, width] : [width, height], 'mm', unit.value)
})

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
  picked.value = outline
  start.value = 'shaped'
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

async function make() {
  if (!size.value || !paper.value || !folding.value) return
  busy.value = true
  const outline = start.value === 'shaped' ? picked.value : null
  // what is not said here the server fills in
  const document: Partial<DesignData> = {
    name: name.value.trim() || 'New card',
    units: unit.value,
    card: { size: size.value, turned: turned.value, folding: folding.value, slack: 2 },
    papers: [paper.value],
    artworks: outline?.drawn ? { [outline.drawn.key]: outline.drawn.artwork } : {},
    pieces: [
      {
        id: 'base',
        name: 'Base',
        paper: paper.value.id,
        steps: [
          { id: 's1', on: true, ...startOf(catalogue, outline) } as StepData,
        ],
      } as unknown as PieceData,
    ],
  }
  try {
    const made = await answer(client.POST('/api/designs', { body: { document: document as DesignData } }))
    await router.push({ name: 'bench', params: { id: made.id } })
  } catch (error) {
    tellError(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="page">
    <header class="top">
      <RouterLink to="/" class="home"><BrandMark /></RouterLink>
      <ElInput v-model="name" class="name" aria-label="Name of the card" maxlength="120" />
      <ElRadioGroup v-model="unit" size="small" aria-label="Unit">
        <ElRadioButton value="mm">mm</ElRadioButton>
        <ElRadioButton value="in">in</ElRadioButton>
      </ElRadioGroup>
      <span class="spring" />
      <ElButton type="primary" :loading="busy" :disabled="!size || !paper || (start === 'shaped' && !picked)" @click="make">
        Build it
      </ElButton>
    </header>
    <main class="columns">
      <section class="sizes" aria-labelledby="size-heading">
        <div class="line">
          <h2 id="size-heading">Card and envelope, to scale</h2>
          <ElSwitch v-model="turned" active-text="turned" aria-label="Turned" />
          <span class="spring" />
          <span class="figure">{{ measures }}</span>
        </div>
        <p v-if="!sizes.length" class="soft" aria-busy="true">Fetching the sizes …</p>
        <div class="grid" role="radiogroup" aria-labelledby="size-heading">
          <button
            v-for="(s, i) in sizes"
            :key="i"
            class="plain-button size-tile"
            role="radio"
            :aria-checked="size === s"
            :class="{ chosen: size?.name === s.name && size?.width === s.width }"
            @click="size = s"
          >
            <SizePicture :size="s" :turned="turned" :scale="scale" />
            <strong>{{ s.name }}</strong>
            <span class="figure soft">{{ formatMeasures([s.width, s.height], 'mm', unit) }}</span>
            <span class="soft envelope">{{ s.envelope ? `in ${s.envelope.name || 'its own'} envelope` : 'no envelope' }}</span>
          </button>
          <button class="plain-button size-tile own" @click="ownOpen = true">
            <span class="plus" aria-hidden="true">+</span>
            <strong>Own measures</strong>
          </button>
        </div>
      </section>
      <aside class="rest">
        <section aria-labelledby="start-heading">
          <h2 id="start-heading">Start with</h2>
          <StartChoice v-model="start" :picked="picked" aria-labelledby="start-heading" @pick="pickerOpen = true" />
        </section>
        <section aria-labelledby="way-heading">
          <h2 id="way-heading">Way of folding</h2>
          <WayGrid v-if="folding" :model-value="folding.kind" @update:model-value="(kind) => folding && (folding = { ...folding, kind })" />
          <p class="soft told">{{ way?.description }}</p>
          <FoldingForm v-if="folding" v-model="folding" :unit="unit" />
        </section>
        <section aria-labelledby="paper-heading">
          <h2 id="paper-heading">Paper</h2>
          <PaperChooser v-model="paper" :unit="unit" />
        </section>
      </aside>
    </main>
    <OwnSizeForm v-if="ownOpen" :unit="unit" @close="ownOpen = false" @take="ownSize" />
    <OutlinePicker v-if="pickerOpen && size" :unit="unit" :card="size" @close="pickerOpen = false" @pick="take" />
    <DropHint :over="over" />
    <ReadingDialog v-if="file && size" :file="file" :unit="unit" :card="size" verb="Keep, and start with it" :busy="keeping" @close="file = null" @take="keep" />
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 372px;
  height: calc(100% - 56px);
}
.sizes {
  padding: 18px 24px;
  overflow: auto;
}
.rest {
  padding: 18px 24px;
  background: var(--surface);
  border-left: 1px solid var(--border);
  overflow: auto;
  display: grid;
  align-content: start;
  gap: 22px;
}
.line {
  display: flex;
  align-items: center;
  gap: 16px;
  margin-bottom: 12px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 12px;
}
.size-tile {
  display: grid;
  justify-items: center;
  gap: 1px;
  padding: 10px 8px;
  background: var(--surface);
  border: 1px solid var(--border);
  border-radius: 8px;
  font-size: var(--size-text);
}
.size-tile .figure,
.size-tile .envelope {
  font-size: var(--size-figure);
  text-align: center;
}
.own {
  align-content: center;
  border-style: dashed;
  border-color: var(--border-strong);
}
.plus {
  font-size: var(--size-title);
}
.chosen {
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1px var(--accent);
  background: var(--accent-pale);
}
.rest h2 {
  margin-bottom: 8px;
}
.told {
  margin: 6px 0;
  font-size: var(--size-small);
}
</style>
