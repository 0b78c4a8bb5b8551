<script setup lang="ts">
/** The shelf: artworks with search and tags, papers, card sizes; files are read by dropping them. */
import { computed, onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import type { Unit } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'
import BrandMark from '@/shared/components/BrandMark.vue'
import { ask, askText, tell, tellError } from '@/shared/messages'
import { useShelf, type ShelfArtwork } from '@/shared/shelf'
import { formatMeasures } from '@/shared/units/figures'
import { t } from '@/shared/words'
import { DropHint, ReadingDialog, useFileDrop, type Wish } from '@/features/reading'
import ArtworkTile from './ArtworkTile.vue'
import UsesDialog from './UsesDialog.vue'

const shelf = useShelf()
const router = useRouter()
const words = ref('')
const tag = ref('')
const showBin = ref(false)
const unit = ref<Unit>('mm')
const trouble = ref('')
const file = ref<File | null>(null)
const replacing = ref<ShelfArtwork | null>(null)
const busy = ref(false)
const input = ref<HTMLInputElement | null>(null)
const usesOf = ref<ShelfArtwork | null>(null)
const { over } = useFileDrop((dropped) => {
  replacing.value = null
  file.value = dropped
})

async function load() {
  trouble.value = ''
  try {
    await shelf.load(true)
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    trouble.value = error.text
  }
}
onMounted(load)

const rows = computed(() => shelf.artworks.filter((a) => a.binned === showBin.value))
const tags = computed(() => [...new Set(rows.value.flatMap((a) => a.tags))].sort())
const found = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return rows.value.filter((a) => {
    const text = `${a.name} ${a.tags.join(' ')} ${a.source}`.toLowerCase()
    return wanted.every((w) => text.includes(w)) && (!tag.value || a.tags.includes(tag.value))
  })
})

async function act(how: () => Promise<unknown>, done?: string) {
  try {
    await how()
    if (done) tell(done)
  } catch (error) {
    tellError(error)
  }
}

async function run(a: ShelfArtwork, action: string) {
  if (action === 'start') return void router.push({ name: 'new', query: { artwork: a.id } })
  if (action === 'rename') {
    const name = await askText(t('Rename'), t('New name'), a.name)
    if (name) await act(() => shelf.changeArtwork(a.id, { name: name.slice(0, 80), source: '' }))
  } else if (action === 'tags') {
    const text = await askText(t('Tags'), t('Words, with commas between them'), a.tags.join(', ') || ' ')
    if (text !== null) await act(() => shelf.changeArtwork(a.id, { tags: text.split(','), source: '' }))
  } else if (action === 'replace') {
    replacing.value = a
    input.value?.click()
  } else if (action === 'uses') {
    usesOf.value = a
  } else if (action === 'bin') {
    const done = t('“{name}” is in the bin. Designs keep their own copy.', { name: a.name })
    await act(() => shelf.changeArtwork(a.id, { binned: true, source: '' }), done)
  } else if (action === 'restore') {
    await act(() => shelf.changeArtwork(a.id, { binned: false, source: '' }), t('Back on the shelf.'))
  } else if (action === 'delete') {
    const sure = await ask(t('Delete for good?'), t('“{name}” cannot be brought back. Designs keep their own copy.', { name: a.name }), t('Delete'))
    if (sure) await act(() => shelf.removeArtwork(a.id))
  }
}

async function take(wish: Wish) {
  busy.value = true
  const old = replacing.value
  await act(
    async () => {
      if (old) {
        await shelf.changeArtwork(old.id, { drawing: wish.drawing, source: wish.source })
      } else {
        await shelf.keepArtwork(wish.drawing, wish.tags, wish.source)
      }
      file.value = null
    },
    old
      ? t('“{name}” is replaced. Designs that use it keep the old outlines until they are told otherwise.', { name: old.name })
      : t('“{name}” is on the shelf.', { name: wish.drawing.name }),
  )
  busy.value = false
}

function choose(event: Event) {
  const field = event.target as HTMLInputElement
  file.value = field.files?.[0] ?? null
  field.value = ''
}
function readNew() {
  replacing.value = null
  input.value?.click()
}
</script>

<template>
  <div class="page">
    <header class="top">
      <RouterLink to="/" class="home"><BrandMark /></RouterLink>
      <ElInput v-model="words" class="search" :placeholder="$t('Search the shelf')" :aria-label="$t('Search the shelf')" clearable />
      <ElRadioGroup v-model="unit" size="small" :aria-label="$t('Unit')">
        <ElRadioButton value="mm">mm</ElRadioButton>
        <ElRadioButton value="in">in</ElRadioButton>
      </ElRadioGroup>
      <span class="spring" />
      <RouterLink to="/" class="link">{{ $t('Designs') }}</RouterLink>
      <input ref="input" class="visually-hidden" type="file" accept=".svg,.svgz,.dxf,.ttf,.otf,.woff,.woff2" :aria-label="$t('Drawing or font file')" tabindex="-1" @change="choose" />
      <ElButton type="primary" @click="readNew">{{ $t('Read a file …') }}</ElButton>
    </header>
    <main class="page-inner">
      <div class="heading">
        <h1>{{ showBin ? $t('Bin of the shelf') : $t('Shelf') }}</h1>
        <div v-if="tags.length" class="filter" role="group" :aria-label="$t('Tags')">
          <button v-for="one in tags" :key="one" class="plain-button tag" :aria-pressed="tag === one" :class="{ chosen: tag === one }" @click="tag = tag === one ? '' : one">{{ one }}</button>
        </div>
        <span class="spring" />
        <ElButton text @click="((showBin = !showBin), (tag = ''))">{{ showBin ? $t('Back to the shelf') : $t('Open the bin') }}</ElButton>
      </div>
      <p v-if="trouble" class="state" role="alert">{{ trouble }} <ElButton size="small" @click="load">{{ $t('Try again') }}</ElButton></p>
      <p v-else-if="!shelf.loaded" class="state soft" aria-busy="true">{{ $t('Looking through the shelf …') }}</p>
      <p v-else-if="!found.length && (words || tag)" class="state soft">{{ $t('Nothing on the shelf is called “{words}”.', { words: words || tag }) }}</p>
      <p v-else-if="!found.length && showBin" class="state soft">{{ $t('The bin is empty.') }}</p>
      <div v-else-if="!found.length" class="state">
        <p>{{ $t('No artwork yet. Drop an SVG or DXF drawing, or a font, anywhere on this page.') }}</p>
        <ElButton type="primary" @click="readNew">{{ $t('Read a file …') }}</ElButton>
      </div>
      <div v-else class="grid">
        <ArtworkTile v-for="a in found" :key="a.id" :artwork="a" :unit="unit" @act="(c: string) => run(a, c)" @tag="(t: string) => (tag = t)" />
      </div>
      <template v-if="!showBin && !words && !tag && shelf.loaded">
        <h2>{{ $t('Papers') }}</h2>
        <ul class="papers">
          <li v-for="p in shelf.papers" :key="p.id">
            <svg viewBox="0 0 34 24" aria-hidden="true"><path d="M1 1h32v22H1z" :fill="p.outside" /><path d="M33 23V6L16 23z" :fill="p.inside" /></svg>
            <strong>{{ p.name }}</strong>
            <span class="soft">{{ $t('{weight} g/m², {thickness} thick', { weight: p.weight, thickness: formatMeasures([p.thickness], 'mm', unit) }) }}</span>
          </li>
        </ul>
        <template v-if="shelf.sizes.length">
          <h2>{{ $t('Own card sizes') }}</h2>
          <ul class="papers">
            <li v-for="s in shelf.sizes" :key="s.name"><strong>{{ s.name }}</strong><span class="soft figure">{{ formatMeasures([s.width, s.height], 'mm', unit) }}</span></li>
          </ul>
        </template>
      </template>
    </main>
    <DropHint :over="over" />
    <ReadingDialog
      v-if="file"
      :file="file"
      :unit="unit"
      :verb="replacing ? $t('Replace “{name}”', { name: replacing.name }) : $t('Keep on the shelf')"
      :instead="replacing?.name"
      :busy="busy"
      @close="file = null"
      @take="take"
    />
    <UsesDialog v-if="usesOf" :artwork="usesOf" @close="usesOf = null" />
  </div>
</template>

<style scoped>
.heading {
  display: flex;
  align-items: center;
  gap: 18px;
  margin-bottom: 12px;
}
h1 {
  font-size: var(--size-title);
}
h2 {
  margin: 30px 0 10px;
}
.filter {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.tag {
  padding: 1px 10px;
  border-radius: 10px;
  background: var(--paper-2);
  font-size: var(--size-small);
}
.tag.chosen {
  background: var(--accent);
  color: #fff;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(206px, 1fr));
  gap: 16px;
}
.state {
  padding: 48px 0;
  display: grid;
  gap: 14px;
  justify-items: start;
}
.papers {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(206px, 1fr));
  gap: 10px 16px;
  font-size: var(--size-text);
}
.papers li {
  display: grid;
  grid-template-columns: auto 1fr;
  column-gap: 10px;
  align-items: center;
}
.papers svg {
  grid-row: span 2;
  width: 40px;
  height: 28px;
  stroke: var(--ink-2);
}
.papers .soft {
  font-size: var(--size-small);
}
</style>
