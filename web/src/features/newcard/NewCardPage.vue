<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import { answer, client } from '@/shared/api/client'
import type { CardSize, DesignData, Folding, Paper, StepData, Unit } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import LayersPicture from '@/shared/components/LayersPicture.vue'
import BrandMark from '@/shared/components/BrandMark.vue'
import { tellError } from '@/shared/messages'
import { initialValues } from '@/shared/schemaForm'
import { useShelf } from '@/shared/shelf'
import { formatMeasures } from '@/shared/units/figures'
import FoldingForm from '@/features/folding/FoldingForm.vue'
import WayGrid from '@/features/folding/WayGrid.vue'
import OutlinePicker from '@/features/outlines/OutlinePicker.vue'
import DropHint from '@/features/reading/DropHint.vue'
import ReadingDialog, { type Wish } from '@/features/reading/ReadingDialog.vue'
import { useFileDrop } from '@/features/reading/useFileDrop'
import { drawnOutline, startOf, type PickedOutline } from '@/features/outlines/picked'
import OwnSizeForm from './OwnSizeForm.vue'
import PaperChooser from './PaperChooser.vue'
import SizePicture from './SizePicture.vue'

const router = useRouter()
const route = useRoute()
const catalogue = useCatalogue()
const shelf = useShelf()
const name = ref('New card')
const unit = ref<Unit>('mm')
const size = ref<CardSize | null>(null)
const turned = ref(false)
const folding = ref<Folding | null>(null)
const way = computed(() => catalogue.data?.ways.find((w) => w.kind === folding.value?.kind))
const paper = ref<Paper | null>(null)
const start = ref<'blank' | 'figure'>('blank')
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
    folding.value ??= { ...initialValues(catalogue.data?.folding ?? {}), kind: 'side-fold' } as unknown as Folding
    // from the shelf: the card starts with this artwork
    const wanted = shelf.kept.find((a) => a.id === Number(route.query.artwork))
    if (wanted) {
      take(drawnOutline(await shelf.full(wanted.id)))
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
  start.value = 'figure'
  pickerOpen.value = false
}

async function keep(wish: Wish) {
  keeping.value = true
  try {
    take(drawnOutline(await shelf.keepArtwork(wish.artwork, wish.tags, wish.source)))
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
  const outline = start.value === 'figure' ? picked.value : null
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
          { id: 's1', on: true, ...(outline ? startOf(outline) : { kind: 'blank' }) } as StepData,
        ],
      },
    ],
  }
  try {
    const made = await answer(client.POST('/api/designs', { body: { document } }))
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
      <ElButton type="primary" :loading="busy" :disabled="!size || !paper || (start === 'figure' && !picked)" @click="make">
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
          <div class="starts" role="radiogroup" aria-labelledby="start-heading">
            <button
              class="plain-button start"
              role="radio"
              :aria-checked="start === 'blank'"
              :class="{ chosen: start === 'blank' }"
              @click="start = 'blank'"
            >
              <svg viewBox="0 0 64 48" aria-hidden="true">
                <path class="inside" d="M6 8h52v32H6z" /><path class="fold" d="M32 8v32" />
              </svg>
              <span><strong>A plain blank</strong><br /><span class="soft">its panels and folds</span></span>
            </button>
            <button
              class="plain-button start"
              role="radio"
              :aria-checked="start === 'figure'"
              :class="{ chosen: start === 'figure' }"
              @click="pickerOpen = true"
            >
              <svg v-if="!picked" viewBox="0 0 64 48" aria-hidden="true">
                <path class="inside" d="M12 34C8 18 22 8 32 20 42 8 56 18 52 34 46 44 18 44 12 34z" />
              </svg>
              <span v-else class="picked"><LayersPicture :layers="picked.picture.layers" :box="picked.picture.box" /></span>
              <span>
                <strong>A figure</strong><br />
                <span class="soft">{{ picked ? `${picked.title}; choose another` : 'from the shelf or a file' }}</span>
              </span>
            </button>
          </div>
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
  font-size: 13px;
}
.size-tile .figure,
.size-tile .envelope {
  font-size: 11.5px;
  text-align: center;
}
.own {
  align-content: center;
  border-style: dashed;
  border-color: var(--border-strong);
}
.plus {
  font-size: 24px;
}
.chosen {
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1px var(--accent);
  background: var(--accent-pale);
}
.starts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.rest h2 {
  margin-bottom: 8px;
}
.start {
  display: grid;
  grid-template-columns: 48px minmax(0, 1fr);
  gap: 10px;
  align-items: center;
  padding: 8px 10px;
  background: var(--surface);
  border: 1px solid var(--border);
  border-radius: 8px;
  font-size: 13px;
  line-height: 1.3;
  overflow-wrap: anywhere;
}
.start .soft {
  font-size: 12px;
}
.start svg {
  width: 48px;
  height: 40px;
}
.start.chosen {
  border-color: var(--accent);
}
.inside {
  fill: var(--paper-2);
  stroke: var(--ink-1);
}
.picked {
  width: 48px;
  height: 48px;
}
.outside {
  fill: #c3d1d2;
  stroke: var(--ink-1);
}
.fold {
  stroke: var(--line-fold);
  stroke-dasharray: 5 2 1 2;
}
.told {
  margin: 6px 0;
  font-size: 12.5px;
}
</style>
