<script setup lang="ts">
/** Adding a step: found by what is said, chosen by picture. */
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import type { Unit, Values } from '@/shared/api/document'
import { useCatalogue, type StepKind } from '@/shared/catalogue'
import PathPicture from '@/shared/components/PathPicture.vue'
import { t } from '@/shared/words'
import { useLately, useStepSearch, type Found } from './useStepSearch'

/** What the piece has where the step comes. */
export interface Having {
  panels: boolean
  folds: boolean
  windows: boolean
  /** Whether a figure is mirrored somewhere in it. */
  mirror: boolean
}
const props = defineProps<{ started: boolean; layer: boolean; unit: Unit; having: Having }>()
/** As many as are seen at once. */
const MOST = 24
const emit = defineEmits<{ close: []; pick: [kind: StepKind, values: Values] }>()
const catalogue = useCatalogue()
const at = ref(0)
const input = ref<{ focus(): void; input?: HTMLInputElement } | null>(null)
const grid = ref<HTMLElement | null>(null)

const offered = computed(() =>
  (catalogue.data?.steps ?? []).filter(
    (s) => (s.starts_with !== '') !== props.started && (s.starts_with === 'layer') <= props.layer && s.for_layers <= props.layer,
  ),
)
const { words, found, settled } = useStepSearch(
  () => offered.value,
  () => props.unit,
)

const { kinds, remember } = useLately()

/** In groups: those added lately and each stage's, or what was found, the likeliest first. */
const groups = computed(() => {
  const all = found()
  if (words.value.trim()) return [{ title: '', steps: all.slice(0, MOST), more: Math.max(all.length - MOST, 0) }]
  const used = kinds.value.flatMap((kind) => all.filter((f) => f.kind.kind === kind))
  const stages = (catalogue.data?.stages ?? []).map((title) => ({ title, steps: all.filter((f) => f.kind.stage === title), more: 0 }))
  return [{ title: t('Added lately'), steps: used, more: 0 }, ...stages].filter((g) => g.steps.length)
})
const flat = computed(() => groups.value.flatMap((g) => g.steps))
const place = (group: number, step: number) => groups.value.slice(0, group).reduce((n, g) => n + g.steps.length, step)
const current = computed(() => flat.value[at.value])
watch(words, () => (at.value = 0))

const BEFORE = t('goes before the mirror')
/** Why a step cannot do anything here, or where it goes; empty where it simply can. */
function note(kind: StepKind): string {
  if (kind.needs === 'figure' && props.having.panels) {
    if (kind.makes_panels) return t('is folded already')
    return props.having.mirror ? BEFORE : t('not on a blank')
  }
  if (kind.needs === 'fold' && !props.having.folds) return t('needs a fold')
  if (kind.needs === 'window' && !props.having.windows) return t('needs a window')
  return ''
}

/** What is typed before the field has the focus goes there all the same, and to nothing else. */
function early(event: KeyboardEvent) {
  const target = event.target as HTMLElement
  // the field from before may still have the focus: not just any field is this one
  if (target === input.value?.input || target.closest('.el-dialog button') || event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key.length === 1) words.value += event.key
  else if (event.key === 'Backspace') words.value = words.value.slice(0, -1)
  else if (event.key === 'Enter') void key(event)
  else return
  event.preventDefault()
  event.stopPropagation()
  input.value?.focus()
}
window.addEventListener('keydown', early, true)
onBeforeUnmount(() => window.removeEventListener('keydown', early, true))

function pick(step: Found) {
  remember(step.kind.kind)
  emit('pick', step.kind, step.values)
}

async function key(event: Event) {
  if (!(event instanceof KeyboardEvent)) return
  if (event.key === 'Enter') {
    event.preventDefault()
    await nextTick()
    await settled()
    if (current.value) pick(current.value)
  } else if (event.key.startsWith('Arrow') && (words.value === '' || event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
    event.preventDefault()
    move(event.key)
  }
}

/** To the neighbour in that direction, as the pictures lie. */
function move(direction: string) {
  const tiles = [...(grid.value?.querySelectorAll('[role=option]') ?? [])].map((t) => t.getBoundingClientRect())
  const here = tiles[at.value]
  if (!here) return
  const across = direction === 'ArrowLeft' || direction === 'ArrowRight'
  if (across) {
    at.value = Math.min(Math.max(at.value + (direction === 'ArrowRight' ? 1 : -1), 0), tiles.length - 1)
  } else {
    const down = direction === 'ArrowDown'
    const rows = tiles.map((t, i) => ({ t, i })).filter(({ t }) => (down ? t.top > here.top + 4 : t.top < here.top - 4))
    const next = rows.length ? (down ? Math.min(...rows.map((r) => r.t.top)) : Math.max(...rows.map((r) => r.t.top))) : null
    const row = rows.filter((r) => r.t.top === next)
    if (row.length) at.value = row.reduce((a, b) => (Math.abs(b.t.left - here.left) < Math.abs(a.t.left - here.left) ? b : a)).i
  }
  void nextTick(() => grid.value?.querySelector('.at')?.scrollIntoView({ block: 'nearest' }))
}
</script>

<template>
  <ElDialog :model-value="true" :title="$t('Add a step')" width="1080" top="4vh" @close="emit('close')" @opened="input?.focus()">
    <ElInput
      ref="input"
      v-model="words"
      :placeholder="$t('What should happen? For example: round opening 40 mm, trim the foot, stitched line')"
      :aria-label="$t('Search steps')"
      maxlength="120"
      @keydown="key"
    />
    <div ref="grid" class="groups" role="listbox" :aria-label="$t('Steps')">
      <div v-for="(g, n) in groups" :key="g.title" class="group" role="group" :aria-label="g.title || $t('Found')">
        <h3 v-if="g.title" role="presentation">{{ g.title }}</h3>
        <div class="grid" :class="{ large: !g.title }">
          <button
            v-for="(f, i) in g.steps"
            :key="f.kind.kind"
            class="plain-button tile"
            role="option"
            :aria-selected="place(n, i) === at"
            :class="{ at: place(n, i) === at, off: note(f.kind) && note(f.kind) !== BEFORE }"
            :title="f.kind.description"
            @click="pick(f)"
            @mousemove="at = place(n, i)"
          >
            <span class="picture">
              <PathPicture
                v-if="f.kind.after"
                :path="f.kind.after.path"
                :box="f.kind.after.box"
                :folds="f.kind.after.folds"
                :perforated="f.kind.after.perforated"
                :drawn="f.kind.after.drawn"
                :ghost="f.kind.before?.path"
                :ghost-box="f.kind.before?.box"
              />
            </span>
            <strong>{{ f.kind.title }}</strong>
            <span v-if="f.told.length" class="told">{{ f.told.join(', ') }}</span>
            <span v-else-if="note(f.kind)" class="soft note">{{ note(f.kind) }}</span>
          </button>
        </div>
        <p v-if="g.more" class="soft note">{{ $t('{more} less likely ones are not shown.', { more: g.more }) }}</p>
      </div>
    </div>
    <p class="description">
      <template v-if="current"><strong>{{ current.kind.title }}</strong>: {{ current.kind.description }}</template>
      <span v-else class="soft">{{ $t('No step does “{words}”. Try a plainer word.', { words }) }}</span>
    </p>
  </ElDialog>
</template>

<style scoped>
.groups {
  margin-top: 10px;
  max-height: calc(90vh - 170px);
  overflow: auto;
}
.group {
  margin-bottom: 6px;
}
h3 {
  margin: 4px 0 3px;
  font-size: var(--size-small);
  color: var(--text-soft);
  font-weight: 600;
}
.grid {
  display: grid;
  grid-template-columns: repeat(10, minmax(0, 1fr));
  gap: 6px;
}
.grid.large {
  grid-template-columns: repeat(6, minmax(0, 1fr));
}
.tile {
  display: grid;
  justify-items: center;
  align-content: start;
  padding: 4px 3px;
  border: 1px solid var(--border);
  border-radius: 8px;
  font-size: var(--size-small);
  line-height: 1.2;
  text-align: center;
  min-width: 0;
}
.tile strong {
  font-weight: 600;
}
.told {
  color: var(--accent);
  font-weight: 600;
}
.note {
  font-size: 11px;
}
.at {
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1px var(--accent);
  background: var(--accent-pale);
}
.off .picture {
  opacity: 0.45;
}
.picture {
  width: 76px;
  height: 46px;
}
.large .picture {
  width: 120px;
  height: 76px;
}
.description {
  margin-top: 8px;
  min-height: 2.8em;
  font-size: var(--size-text);
}
</style>
