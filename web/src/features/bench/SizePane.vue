<script setup lang="ts">
/** The card itself as the first thing of the strip: size, way of folding, paper. */
import { computed, onMounted } from 'vue'
import type { CardSize, DesignData, Paper, PieceData } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import LengthInput from '@/shared/components/LengthInput.vue'
import { tellError } from '@/shared/messages'
import { useShelf } from '@/shared/shelf'
import PaperChooser from '@/features/newcard/PaperChooser.vue'

const props = defineProps<{ document: DesignData; piece: PieceData }>()
const emit = defineEmits<{ change: [document: DesignData] }>()
const catalogue = useCatalogue()
const shelf = useShelf()
onMounted(() => shelf.load().catch(tellError))

const card = computed(() => props.document.card)
const sizes = computed(() => [...(catalogue.data?.sizes ?? []), ...shelf.sizes])
const paper = computed(() => props.document.papers.find((p) => p.id === props.piece.paper) ?? null)

function setCard(values: Partial<DesignData['card']>) {
  emit('change', { ...props.document, card: { ...card.value, ...values } })
}
function setSize(values: Partial<CardSize>) {
  setCard({ size: { ...card.value.size, ...values, name: 'Own size' } })
}
function chooseSize(name: string) {
  const size = sizes.value.find((s) => s.name === name)
  if (size) setCard({ size })
}

/** The piece's paper: values changed, or another one of the shelf taken into the document. */
function setPaper(next: Paper) {
  const others = props.document.papers.filter((p) => p.id !== next.id)
  const used = new Set(props.document.pieces.map((p) => (p.id === props.piece.id ? next.id : p.paper)))
  emit('change', {
    ...props.document,
    papers: [next, ...others.filter((p) => used.has(p.id))],
    pieces: props.document.pieces.map((p) =>
      p.id === props.piece.id ? { ...p, paper: next.id } : p,
    ),
  })
}
</script>

<template>
  <section class="size-pane" aria-label="Size of the card">
    <div class="fields">
      <label>
        <span>Card size</span>
        <ElSelect :model-value="card.size.name" aria-label="Card size" @update:model-value="chooseSize">
          <ElOption v-for="(s, i) in sizes" :key="i" :value="s.name" :label="s.name" />
        </ElSelect>
      </label>
      <label>
        <span>Way of folding</span>
        <ElSelect :model-value="card.way" aria-label="Way of folding" @update:model-value="(way: string) => setCard({ way })">
          <ElOption v-for="w in catalogue.data?.ways ?? []" :key="w.kind" :value="w.kind" :label="w.title" />
        </ElSelect>
      </label>
      <label>
        <span>Wide, upright</span>
        <LengthInput :model-value="card.size.width" :unit="document.units" label="Card width" :min="10" :max="1000" @update:model-value="(width) => setSize({ width })" />
      </label>
      <label>
        <span>High, upright</span>
        <LengthInput :model-value="card.size.height" :unit="document.units" label="Card height" :min="10" :max="1000" @update:model-value="(height) => setSize({ height })" />
      </label>
      <label>
        <span>Room wished for in the envelope</span>
        <LengthInput :model-value="card.slack" :unit="document.units" label="Slack" :min="0" :max="50" @update:model-value="(slack) => setCard({ slack })" />
      </label>
      <div class="turn"><ElSwitch :model-value="card.turned" active-text="turned" aria-label="Turned" @update:model-value="(v) => setCard({ turned: Boolean(v) })" /></div>
    </div>
    <PaperChooser :model-value="paper" :unit="document.units" @update:model-value="setPaper" />
  </section>
</template>

<style scoped>
.size-pane {
  display: grid;
  gap: 12px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 12px;
}
label span:first-child {
  display: block;
  font-size: 12px;
  color: var(--text-soft);
}
.turn {
  align-self: end;
}
</style>
