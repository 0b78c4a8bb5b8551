<script setup lang="ts">
/** The papers of the design: each is changed for all pieces of it, replaced, or made one piece's own. */
import { computed, ref } from 'vue'
import type { DesignData, Paper, PieceData, Unit } from '@/shared/api/document'
import { t } from '@/shared/words'
import { PaperSwatch, PaperValues } from '@/features/papers'
import { useShelf } from '@/shared/shelf'
import type { Edit } from '../state/useDocument'
import { dropPaper, givePaper, ownPaper, putPaper, replacePaper, usesOf } from '../commands/paperEdits'

const props = defineProps<{ document: DesignData; piece: PieceData; unit: Unit }>()
const emit = defineEmits<{ close: []; change: [edit: Edit] }>()
const shelf = useShelf()
const open = ref(true)
const chosen = ref(props.piece.paper)
const paper = computed(() => props.document.papers.find((p) => p.id === chosen.value) ?? props.document.papers[0]!)
const uses = computed(() => usesOf(props.document))
const pieces = computed(() => props.document.pieces.filter((p) => p.paper === paper.value.id))
/** Papers that can come in its place: the others of the design, then those of the shelf. */
const others = computed(() => {
  const own = props.document.papers.filter((p) => p.id !== paper.value.id)
  const known = new Set(props.document.papers.map((p) => p.id))
  return [...own, ...shelf.papers.filter((p) => !known.has(p.id))]
})
const inWords = (count: number) => (count === 0 ? t('no piece') : count === 1 ? t('one piece') : t('{n} pieces', { n: count }))

function replace(id: string) {
  const by = others.value.find((p) => p.id === id)
  if (!by) return
  const { id: before } = paper.value
  emit('change', (now) => replacePaper(now, before, by))
  chosen.value = by.id
}
function add(id: string) {
  const one = others.value.find((p) => p.id === id)
  if (!one) return
  emit('change', (now) => putPaper(now, one))
  chosen.value = one.id
}
function alone() {
  const piece = props.piece.id
  emit('change', (now) => {
    const next = ownPaper(now, piece)
    chosen.value = next.pieces.find((p) => p.id === piece)?.paper ?? chosen.value
    return next
  })
}
const set = (next: Paper) => emit('change', (now) => putPaper(now, next))
function drop() {
  const { id } = paper.value
  emit('change', (now) => dropPaper(now, id))
}
function give() {
  const [piece, one] = [props.piece.id, paper.value]
  emit('change', (now) => givePaper(now, piece, one))
}
</script>

<template>
  <ElDialog v-model="open" :title="$t('Papers of the card')" width="760" align-center @closed="emit('close')">
    <div class="papers">
      <div class="side">
        <div v-arrows class="palette" role="radiogroup" :aria-label="$t('Papers of the card')">
          <button v-for="p in document.papers" :key="p.id" class="plain-button paper" role="radio" :aria-checked="p.id === paper.id" @click="chosen = p.id">
            <PaperSwatch :paper="p" />
            <span>{{ p.name }}<small class="soft">{{ inWords(uses.get(p.id) ?? 0) }}</small></span>
          </button>
        </div>
        <ElSelect model-value="" size="small" :placeholder="$t('Add one of the shelf')" :aria-label="$t('Add a paper')" @update:model-value="add">
          <ElOption v-for="p in others.filter((o) => !uses.has(o.id))" :key="p.id" :value="p.id" :label="p.name"><i class="dot" :style="{ background: p.outside }" /> {{ p.name }}</ElOption>
        </ElSelect>
      </div>
      <div class="one">
        <p class="soft">{{ pieces.length ? $t('Of it: {pieces}. What you change here changes all of them.', { pieces: pieces.map((p) => p.name).join(', ') }) : $t('No piece is of it yet.') }}</p>
        <PaperValues :paper="paper" :unit="unit" @change="set" />
        <div class="acts">
          <ElSelect model-value="" size="small" :placeholder="$t('Put another in its place')" :aria-label="$t('Put another in its place')" @update:model-value="replace">
            <ElOption v-for="p in others" :key="p.id" :value="p.id" :label="p.name"><i class="dot" :style="{ background: p.outside }" /> {{ p.name }}</ElOption>
          </ElSelect>
          <ElButton v-if="piece.paper !== paper.id" size="small" @click="give">{{ $t('Give it to {name}', { name: piece.name }) }}</ElButton>
          <ElButton v-else-if="pieces.length > 1" size="small" @click="alone">{{ $t('Change it for {name} alone', { name: piece.name }) }}</ElButton>
          <ElButton v-if="!pieces.length && document.papers.length > 1" size="small" @click="drop">{{ $t('Take it out') }}</ElButton>
        </div>
      </div>
    </div>
  </ElDialog>
</template>

<style scoped>
.papers {
  display: grid;
  grid-template-columns: 210px minmax(0, 1fr);
  gap: 20px;
}
.side,
.palette {
  display: grid;
  align-content: start;
  gap: 6px;
}
.palette {
  max-height: 56vh;
  overflow: auto;
}
.paper {
  display: grid;
  grid-template-columns: 36px minmax(0, 1fr);
  gap: 10px;
  align-items: center;
  padding: 5px 8px;
  text-align: left;
  border: 1px solid var(--border);
  border-radius: 8px;
}
.paper[aria-checked='true'] {
  border-color: var(--accent);
  box-shadow: 0 0 0 1px var(--accent);
}
.paper span {
  display: grid;
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 12px;
}
.acts :deep(.el-select) {
  width: 200px;
}
p {
  margin: 0 0 8px;
  font-size: var(--size-text);
}
.dot {
  display: inline-block;
  width: 10px;
  height: 10px;
  border-radius: 3px;
  border: 1px solid var(--border-strong);
}
</style>
