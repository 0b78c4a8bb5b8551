<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { StorageSerializers, useLocalStorage, useTimeoutFn } from '@vueuse/core'
import { RouterLink, useRouter } from 'vue-router'
import { answer, client, type Schemas } from '@/shared/api/client'
import { FIRST_DRAWN } from '@/shared/api/early'
import { ApiError } from '@/shared/api/errors'
import BrandMark from '@/shared/components/BrandMark.vue'
import LanguageChoice from '@/shared/components/LanguageChoice.vue'
import { isDesignFile, openDesignFile } from '@/shared/designFile'
import { tell, tellError } from '@/shared/messages'
import { useShelf } from '@/shared/shelf'
import { called, t } from '@/shared/words'
import { HelpButton, useCourse } from '@/features/help'
import { DropHint, ReadingDialog, useFileDrop, type Wish } from '@/features/reading'
import { AccountButton, useSession } from '@/features/session'
import ChosenBar from './ChosenBar.vue'
import DesignTile from './DesignTile.vue'
import FolderDialog from './FolderDialog.vue'
import { useDesignActions } from './useDesignActions'

type Entry = Schemas['DesignEntry']
const session = useSession()
const shelf = useShelf()
const course = useCourse()
const router = useRouter()
const entries = shallowRef<readonly Entry[] | null>(null)
const trouble = ref('')
const words = ref('')
const showBin = ref(false)
const file = ref<File | null>(null)
const keeping = ref(false)
const { over } = useFileDrop((dropped) => (isDesignFile(dropped) ? void openFile(dropped) : (file.value = dropped)))
const picker = ref<HTMLInputElement | null>(null)

async function openFile(dropped: File) {
  try {
    await router.push({ name: 'bench', params: { id: await openDesignFile(dropped) } })
  } catch (error) {
    tellError(error)
  }
}
function picked(event: Event) {
  const input = event.target as HTMLInputElement
  const [first] = input.files ?? []
  input.value = ''
  if (first) void openFile(first)
}

const found = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (entries.value ?? []).filter((e) => {
    const text = `${e.name} ${e.folder} ${called(e.summary.size)} ${e.summary.way} ${e.summary.papers.join(' ')}`.toLowerCase()
    return wanted.every((w) => text.includes(w))
  })
})
const folders = computed(() => [...new Set((entries.value ?? []).map((e) => e.folder).filter(Boolean))].sort((a, b) => a.localeCompare(b)))
/** The folder that is looked into; null for all designs. */
const folder = useLocalStorage<string | null>('stileblade.designs.folder', null, { serializer: StorageSerializers.object })
const inFolder = computed(() => (folder.value !== null && folders.value.includes(folder.value) && !showBin.value ? folder.value : null))
const designs = computed(() => ordered(found.value.filter((e) => !e.template && (inFolder.value === null || e.folder === inFolder.value))))
/** The first ones at once, the others when there is time. */
const MORE = 48
const count = ref(FIRST_DRAWN)
const drawn = computed(() => designs.value.slice(0, count.value))
function more() {
  count.value += MORE
  if (count.value < designs.value.length) later(more)
}
const later = (what: () => void): unknown => ('requestIdleCallback' in window ? requestIdleCallback(what, { timeout: 400 }) : setTimeout(what, 60))
const shown = computed(() => [...designs.value, ...templates.value])
const templates = computed(() => found.value.filter((e) => e.template))

const ORDERS = { changed: t('last changed first'), name: t('by name'), size: t('by size, the largest first'), checks: t('those to mend first') } as const
const order = useLocalStorage<keyof typeof ORDERS>('stileblade.designs.order', 'changed')
function ordered(rows: Entry[]): Entry[] {
  const area = (e: Entry) => e.summary.closed[0] * e.summary.closed[1]
  const trouble = (e: Entry) => e.summary.errors * 1e6 + e.summary.warnings * 1e3 + e.summary.notes
  if (order.value === 'name') return [...rows].sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }))
  if (order.value === 'size') return [...rows].sort((a, b) => area(b) - area(a))
  if (order.value === 'checks') return [...rows].sort((a, b) => trouble(b) - trouble(a))
  return rows
}

/** Pictures that are still being made are asked for again. */
const soon = useTimeoutFn(() => void load(false), 1000, { immediate: false })

/** Counts what was asked for: an answer that comes after a newer wish is not shown. */
let asked = 0
async function load(anew = true) {
  const mine = ++asked
  trouble.value = ''
  soon.stop()
  // the first pictures at once: those of hundreds take longer than all else
  const first = entries.value === null && !showBin.value
  if (anew) entries.value = null
  try {
    const found = (await answer(
      client.GET('/api/designs', { params: { query: { binned: showBin.value, ...(first ? { drawn: FIRST_DRAWN } : {}) } } }),
    )) as readonly Entry[]
    if (mine !== asked) return
    entries.value = found
    if (first && entries.value.length > FIRST_DRAWN) {
      later(() => void load(false))
      return
    }
    if (entries.value.some((e) => e.waiting)) soon.start()
    if (count.value < entries.value.length) later(more)
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    if (mine === asked) trouble.value = error.text
  }
}
watch(showBin, () => ((chosen.value = new Set()), load()))
onMounted(() => load())

/** Those that are chosen, which are there yet. */
const chosen = ref<ReadonlySet<number>>(new Set())
const taken = computed(() => shown.value.filter((e) => chosen.value.has(e.id)))
const { moving, run, runAll, putInto } = useDesignActions(() => load(), chosen)
function choose(entry: Entry) {
  const next = new Set(chosen.value)
  if (!next.delete(entry.id)) next.add(entry.id)
  chosen.value = next
}

async function keep(wish: Wish, start: boolean) {
  keeping.value = true
  try {
    const row = await shelf.keepArtwork(wish.drawing, wish.tags, wish.source)
    file.value = null
    if (start) await router.push({ name: 'new', query: { artwork: row.id } })
    else tell(t('“{name}” is on the shelf.', { name: row.name }))
  } catch (error) {
    tellError(error)
  } finally {
    keeping.value = false
  }
}

/** What is told where a quota is nearly full; what it is stands in the account. */
const nearlyFull = computed(() => (session.account?.nearly.length ? t('You have used over nine tenths of what you may keep on this server.') : ''))
const account = ref<InstanceType<typeof AccountButton> | null>(null)
</script>

<template>
  <div class="page">
    <header class="top">
      <BrandMark />
      <ElInput v-model="words" class="search" :placeholder="$t('Search by name, size, way or paper')" :aria-label="$t('Search designs')" clearable />
      <span class="spring" />
       <LanguageChoice />
      <HelpButton />
      <AccountButton ref="account" />
      <RouterLink to="/jobs" class="shelf">{{ $t('Jobs') }}</RouterLink>
      <RouterLink to="/shelf" class="shelf">{{ $t('Shelf') }}</RouterLink>
      <RouterLink to="/new" class="new">{{ $t('New card') }}</RouterLink>
    </header>
    <main class="page-inner">
      <div class="heading">
        <h1>{{ showBin ? $t('Bin') : $t('Designs') }}</h1>
        <span class="spring" />
        <ElSelect v-model="order" size="small" class="order" :aria-label="$t('Order of the designs')">
          <ElOption v-for="(label, key) in ORDERS" :key="key" :value="key" :label="label" />
        </ElSelect>
        <ElButton text :title="$t('A design that was saved as a file; it can be dropped here, too')" @click="picker?.click()">{{ $t('Open a design file …') }}</ElButton>
        <input ref="picker" type="file" accept=".json,application/json" hidden @change="picked" />
        <ElButton text @click="showBin = !showBin">{{ showBin ? $t('Back to the designs') : $t('Open the bin') }}</ElButton>
      </div>
      <p v-if="nearlyFull" class="nearly" role="status">
        {{ nearlyFull }} <ElButton size="small" @click="account?.show()">{{ $t('Look at what you keep') }}</ElButton>
      </p>
      <p v-if="trouble" class="state" role="alert">
        {{ trouble }} <ElButton size="small" @click="load()">{{ $t('Try again') }}</ElButton>
      </p>
      <p v-else-if="!entries" class="state soft" aria-busy="true">{{ $t('Folding the cards …') }}</p>
      <p v-else-if="!found.length && words" class="state soft">{{ $t('No design is called “{words}”.', { words }) }}</p>
      <p v-else-if="!found.length && showBin" class="state soft">{{ $t('The bin is empty.') }}</p>
      <div v-else-if="!found.length" class="state">
        <p>{{ $t('No card yet. A card begins with its size and an envelope.') }}</p>
        <span><RouterLink to="/new" class="new">{{ $t('Start the first card') }}</RouterLink> <ElButton size="large" @click="course.begin">{{ $t('Be led through it, step by step') }}</ElButton></span>
      </div>
      <template v-else>
        <nav v-if="folders.length && !showBin" class="folders" :aria-label="$t('Folders')">
          <ElButton size="small" :type="inFolder === null ? 'primary' : 'default'" :aria-pressed="inFolder === null" @click="folder = null">{{ $t('All designs') }}</ElButton>
          <ElButton v-for="f in folders" :key="f" size="small" :type="inFolder === f ? 'primary' : 'default'" :aria-pressed="inFolder === f" @click="folder = f">
            {{ f }}&nbsp;<span class="figure">{{ (entries ?? []).filter((e) => e.folder === f && !e.template).length }}</span>
          </ElButton>
        </nav>
        <ChosenBar v-if="taken.length" :count="taken.length" :all="shown.length" :binned="showBin" @act="(a) => runAll(taken, a)" @all="chosen = new Set(shown.map((e) => e.id))" @none="chosen = new Set()" />
        <p v-if="!designs.length && inFolder !== null" class="soft">{{ $t('Nothing in “{inFolder}” is called that.', { inFolder }) }}</p>
        <div class="grid" :class="{ choosing: taken.length }">
          <DesignTile v-for="e in drawn" :key="e.id" :entry="e" :chosen="chosen.has(e.id)" @choose="choose(e)" @act="(a: string) => run(e, a)" />
        </div>
        <template v-if="templates.length">
          <h2 class="templates">{{ $t('Templates') }}</h2>
          <div class="grid" :class="{ choosing: taken.length }">
            <DesignTile v-for="e in templates" :key="e.id" :entry="e" :chosen="chosen.has(e.id)" @choose="choose(e)" @act="(a: string) => run(e, a)" />
          </div>
        </template>
      </template>
      <FolderDialog v-if="moving" :folders="folders" :now="moving[0]?.folder ?? ''" :count="moving.length" @close="moving = null" @take="putInto" />
    </main>
    <DropHint :over="over" />
    <ReadingDialog
      v-if="file"
      :file="file"
      unit="mm"
      :verb="$t('Keep, and start a card with it')"
      also-keep
      :busy="keeping"
      @close="file = null"
      @keep="(w) => keep(w, false)"
      @take="(w) => keep(w, true)"
    />
  </div>
</template>

<style scoped>
.nearly {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 12px;
  padding: 8px 12px;
  border-radius: var(--radius);
  background: var(--el-color-warning-light-9);
}
.shelf {
  font-weight: 550;
}
.new {
  display: inline-block;
  padding: 6px 16px;
  border-radius: var(--radius);
  background: var(--accent);
  color: #fff;
  font-weight: 600;
  text-decoration: none;
}
.new:hover {
  background: var(--accent-strong);
}
.heading {
  display: flex;
  align-items: baseline;
  margin-bottom: 12px;
}
h1 {
  font-size: var(--size-title);
}
.order {
  width: 190px;
}
.folders {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 14px;
}
.folders > :deep(.el-button + .el-button) {
  margin-left: 0;
}
.templates {
  margin: 28px 0 12px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(258px, 1fr));
  gap: 18px;
}
.state {
  padding: 48px 0;
  display: grid;
  gap: 14px;
  justify-items: start;
}
</style>
