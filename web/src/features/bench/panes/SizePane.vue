<script setup lang="ts">
/** The card itself as the first thing of the strip: size, way of folding, paper. */
import { computed, onMounted, ref, shallowRef } from 'vue'
import type { CardSize, DesignData, Folding, Paper, PieceData } from '@/shared/api/document'
import { useCatalogue } from '@/shared/catalogue'
import LengthInput from '@/shared/components/LengthInput.vue'
import { tellError } from '@/shared/messages'
import { useShelf } from '@/shared/shelf'
import { called, t } from '@/shared/words'
import { ChangeList, FoldingForm, OtherSizesDialog, useRefold, WayGrid, type OtherCard } from '@/features/folding'
import { PaperChooser } from '@/features/papers'
import { givePaper } from '../commands/paperEdits'

/** `change` is called when an answer has come, be the pane still there or not. */
const props = defineProps<{ document: DesignData; piece: PieceData; change: (document: DesignData) => void }>()
const catalogue = useCatalogue()
const shelf = useShelf()
onMounted(() => shelf.load().catch(tellError))

const card = computed(() => props.document.card)
const sizes = computed(() => [...(catalogue.data?.sizes ?? []), ...shelf.sizes])
const paper = computed(() => props.document.papers.find((p) => p.id === props.piece.paper) ?? null)

const { refold } = useRefold()
/** What the last change of card or folding did to the steps, while that is worth saying. */
const changed = shallowRef<OtherCard | null>(null)
const comparing = ref(false)
const choosing = ref(false)
const way = computed(() => catalogue.way(card.value.folding.kind))

function setCard(values: Partial<DesignData['card']>) {
  props.change({ ...props.document, card: { ...card.value, ...values } })
}
/** Steps are placed anew on the other card; what cannot be kept is switched off and said. */
async function setAnew(values: Partial<DesignData['card']>) {
  const [found] = (await refold(props.document, [{ ...card.value, ...values }])) ?? []
  if (!found) return
  changed.value = found
  props.change(found.document)
}
const setFolding = (folding: Folding) => setAnew({ folding })
function take(document: DesignData) {
  comparing.value = false
  changed.value = null
  props.change(document)
}
function setSize(values: Partial<CardSize>) {
  void setAnew({ size: { ...card.value.size, ...values, name: t('Own size') } })
}
function chooseSize(name: string) {
  const size = sizes.value.find((s) => s.name === name)
  if (size) void setAnew({ size })
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
      <div class="turn"><ElSwitch :model-value="card.turned" :active-text="$t('lying')" :aria-label="$t('Lying')" @update:model-value="(v) => setAnew({ turned: Boolean(v) })" /></div>
    </div>
    <div class="way">
      <span class="soft">{{ $t('Way of folding') }}</span>
      <strong>{{ way?.title }}</strong>
      <ElButton size="small" @click="choosing = true">{{ $t('Choose another …') }}</ElButton>
    </div>
    <FoldingForm :model-value="card.folding" :unit="document.units" @update:model-value="setFolding" />
    <ChangeList v-if="changed" class="changed" :found="changed" role="status" />
    <PaperChooser :model-value="paper" :unit="document.units" @update:model-value="(p: Paper) => change(givePaper(document, piece.id, p))" />
    <OtherSizesDialog v-if="comparing" :document="document" :unit="document.units" @close="comparing = false" @take="take" />
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
