<script setup lang="ts">
/** Where a piece is worked on: its tabs, the list of all pieces, and the piece itself or the whole card. */
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { DesignData, PieceData, Unit } from '@/shared/api/document'
import PieceTabs, { type Shown } from '../PieceTabs.vue'
import { setValues } from '../commands/edits'
import { pieced } from '../commands/later'
import type { Changing } from '../state/useDocument'
import type { Rest } from '../state/useEvaluation'
import AddPieceDialog from './AddPieceDialog.vue'
import AssembledView from './AssembledView.vue'
import PapersDialog from './PapersDialog.vue'
import PiecesList from './PiecesList.vue'

const props = defineProps<{
  design: Pick<Changing, 'change' | 'later'>
  document: DesignData
  rest: Rest
  piece: PieceData
  unit: Unit
  trouble: string
  slow: boolean
  stopped: boolean
}>()
const emit = defineEmits<{ choose: [piece: string]; stop: []; again: [] }>()
const [adding, papers] = [ref(false), ref(false)]
const listed = ref(false)
const shown = ref<Shown>('piece')
const whole = computed(() => (shown.value === 'piece' ? null : props.rest.assembled))
const side = computed(() => (shown.value === 'inside' ? 'inside' : 'outside'))

function take(offer: Schemas['OfferView'], of: { document: DesignData; panel: string }) {
  adding.value = false
  listed.value = true
  props.design.later(pieced(offer, of, (added) => emit('choose', added[0]!)))
}
</script>

<template>
  <div class="left">
    <PieceTabs
      v-model:shown="shown"
      v-model:listed="listed"
      :model-value="piece.id"
      :document="document"
      :layered="rest.assembled !== null"
      :trouble="trouble"
      :slow="slow"
      :stopped="stopped"
      @stop="emit('stop')"
      @again="emit('again')"
      @add="adding = true"
      @update:model-value="(id) => emit('choose', id)"
    />
    <slot name="offer" />
    <PiecesList
      v-if="listed"
      class="side"
      :document="document"
      :figures="rest.pieces"
      :panels="rest.panels"
      :front="rest.front"
      :chosen="piece.id"
      :unit="unit"
      @choose="(id) => emit('choose', id)"
      @change="design.change"
      @add="adding = true"
      @papers="papers = true"
    />
    <div class="view">
      <AssembledView
        v-if="whole"
        :document="document"
        :seen="whole"
        :side="side"
        :chosen="piece.id"
        :unit="unit"
        @choose="(id) => emit('choose', id)"
        @commit="(moves) => design.change((now) => moves.reduce((doc, [own, step, values]) => setValues(doc, own, step, values), now))"
      />
      <slot v-else />
    </div>
    <PapersDialog v-if="papers" :document="document" :piece="piece" :unit="unit" @close="papers = false" @change="design.change" />
    <AddPieceDialog v-if="adding" :document="document" :panels="rest.panels" :start="piece.panel || rest.front" @close="adding = false" @take="take" />
  </div>
</template>

<style scoped>
.left {
  display: grid;
  grid-template: 34px auto minmax(0, 1fr) / auto minmax(0, 1fr);
  min-width: 0;
}
.left > * {
  grid-column: 1 / -1;
}
.left > :first-child {
  grid-row: 1;
}
.left > .side {
  grid-area: 3 / 1;
  width: 224px;
}
.left > .view {
  grid-area: 3 / 2;
  display: grid;
  min-width: 0;
  min-height: 0;
}
</style>
