<script setup lang="ts">
/** The card itself as the first thing of the strip: size, way of folding, paper. */
import { computed, onMounted, ref, shallowRef } from 'vue'
import type { CardSize, DesignData, Folding, Paper, PieceData } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import LengthInput from '@/shared/components/LengthInput.vue'
import { tellError } from '@/shared/messages'
import { useShelf } from '@/shared/shelf'
import { called } from '@/shared/words'
import { ChangeList, FoldingForm, OtherSizesDialog, WayGrid, type Card, type OtherCard } from '@/features/folding'
import { PaperChooser } from '@/features/papers'
import { ownSize } from '../commands/edits'
import { refolded } from '../commands/later'
import { givePaper } from '../commands/paperEdits'
import type { Changing } from '../state/useDocument'

const props = defineProps<{ document: DesignData; piece: PieceData; design: Pick<Changing, 'change' | 'later'> }>()
const catalogue = useCatalogue()
const shelf = useShelf()
onMounted(() => shelf.load().catch(tellError))

const card = computed(() => props.document.card)
const sizes = computed(() => [...(catalogue.data?.sizes ?? []), ...shelf.sizes])
const paper = computed(() => props.document.papers.find((p) => p.id === props.piece.paper) ?? null)

/** What the last change of card or folding did to the steps, while that is worth saying. */
const changed = shallowRef<OtherCard | null>(null)
const comparing = ref(false)
const choosing = ref(false)
const way = computed(() => catalogue.way(card.value.folding.kind))

function setCard(values: Partial<DesignData['card']>) {
  props.design.change((now) => ({ ...now, card: { ...now.card, ...values } }))
}
/** Steps are placed anew on the other card; what cannot be kept is switched off and said. */
function setAnew(values: (now: Card) => Partial<Card>, along = false) {
  props.design.later(refolded((now) => ({ ...now, ...values(now) }), (found) => (changed.value = found), { along }))
}
/** Figures that stayed as large as they were, made larger or smaller after the card. */
function scaleFigures(factor: number) {
  props.design.later(refolded((now) => now, (found) => (changed.value = found), { factor }))
}
const setFolding = (folding: Folding) => setAnew(() => ({ folding }))
function takeSize(size: CardSize, along: boolean) {
  comparing.value = false
  setAnew(() => ({ size }), along)
}
function setSize(values: Partial<Pick<CardSize, 'width' | 'height'>>) {
  setAnew((now) => ({ size: ownSize(now, values) }))
}
function chooseSize(name: string) {
  const size = sizes.value.find((s) => s.name === name)
  if (size) setAnew(() => ({ size }))
}

</script>

<template>
  <section class="size-pane" :aria-label="$t('Size of the card')">
    <div class="fields">
      <label>
        <span>{{ $t('Card size') }}</span>
        <ElSelect :model-value="card.size.name" :aria-label="$t('Card size')" @update:model-value="chooseSize">
          <ElOption v-for="(s, i) in sizes" :key="i" :value="s.name" :label="called(s.name)" />
        </ElSelect>
      </label>
      <div class="other"><ElButton size="small" @click="comparing = true">{{ $t('Other sizes, side by side …') }}</ElButton></div>
      <label>
        <span>{{ $t('Card width') }}</span>
        <LengthInput :model-value="card.size.width" :unit="document.units" :label="$t('Card width')" :min="10" :max="1000" @update:model-value="(width) => setSize({ width })" />
      </label>
      <label>
        <span>{{ $t('Card height') }}</span>
        <LengthInput :model-value="card.size.height" :unit="document.units" :label="$t('Card height')" :min="10" :max="1000" @update:model-value="(height) => setSize({ height })" />
      </label>
      <label>
        <span>{{ $t('Slack in the envelope') }}</span>
        <LengthInput :model-value="card.slack" :unit="document.units" :label="$t('Slack')" :min="0" :max="50" @update:model-value="(slack) => setCard({ slack })" />
      </label>
      <div class="turn"><ElSwitch :model-value="card.turned" :active-text="$t('lying')" :aria-label="$t('Lying')" @update:model-value="(v) => setAnew(() => ({ turned: Boolean(v) }))" /></div>
    </div>
    <ChangeList v-if="changed" class="changed" :found="changed" scalable role="status" @scale="scaleFigures" />
    <div class="way">
      <span class="soft">{{ $t('Way of folding') }}</span>
      <strong>{{ way?.title }}</strong>
      <ElButton size="small" @click="choosing = true">{{ $t('Choose another …') }}</ElButton>
    </div>
    <FoldingForm :model-value="card.folding" :unit="document.units" @update:model-value="setFolding" />
    <PaperChooser :model-value="paper" :unit="document.units" @update:model-value="(p: Paper) => design.change((now) => givePaper(now, piece.id, p))" />
    <OtherSizesDialog v-if="comparing" :document="document" :unit="document.units" @close="comparing = false" @take="takeSize" />
    <ElDialog v-model="choosing" :title="$t('Way of folding')" width="720px" align-center>
      <WayGrid :model-value="card.folding.kind" @update:model-value="(kind) => ((choosing = false), setFolding({ ...card.folding, kind }))" />
      <p class="soft note">{{ $t('Steps keep their values and are placed by the new panels; what cannot be kept is switched off, not deleted.') }}</p>
    </ElDialog>
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
  font-size: var(--size-small);
  color: var(--text-soft);
}
.turn,
.other {
  align-self: end;
}
.way {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 10px;
  align-items: center;
}
.way .soft {
  font-size: var(--size-small);
}
.changed {
  padding: 5px 10px;
  border-radius: 8px;
  background: var(--accent-pale);
}
.note {
  margin-top: 10px;
  font-size: var(--size-small);
}
</style>
