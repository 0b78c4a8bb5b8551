<script setup lang="ts">
/** Under the folded card: the step in hand with its values, or the card's own. */
import type { DesignData, StepData, Unit, Values, PieceData } from '@/shared/api/document'
import type { Schemas } from '@/shared/api/client'
import type { PickedOutline } from '@/features/outlines'
import type { StepAction } from '../commands/useStepCommands'
import type { Changing } from '../state/useDocument'
import type { Flat, Rest } from '../state/useEvaluation'
import LapTools from './LapTools.vue'
import SizePane from './SizePane.vue'
import SplitBar from './SplitBar.vue'
import StepBar from './StepBar.vue'
import StepPane from './StepPane.vue'

defineProps<{
  design: Pick<Changing, 'change' | 'later'>
  document: DesignData
  piece: PieceData
  step: StepData | null
  index: number
  flat: Flat
  rest: Rest
  hovered: number
  unit: Unit
  colour: string
}>()
const emit = defineEmits<{
  act: [action: StepAction]
  set: [values: Values]
  preview: [values: Values]
  outline: [field: string, picked: PickedOutline]
  toggle: [candidate: number]
  hover: [candidate: number]
  newer: [earlier: string, id: number]
  pieces: [parts: readonly Schemas['PartView'][]]
  lineUp: []
  join: [join: Schemas['JoinView']]
}>()
</script>

<template>
  <div class="in-hand">
    <SplitBar sizes="folded" :label="$t('Height of the folded view')" />
    <StepBar :step="step" :index="index" :count="piece.steps.length" @act="(a) => emit('act', a)" />
    <div class="scroll" tabindex="-1">
      <StepPane
        v-if="step"
        :step="step"
        :document="document"
        :problem="rest.strip.find((s) => s.step === step!.id)?.problem ?? null"
        :flat="flat"
        :hovered="hovered"
        :unit="unit"
        @change="(v) => emit('set', v)"
        @outline="(f, p) => emit('outline', f, p)"
        @toggle="(i) => emit('toggle', i)"
        @hover="(i) => emit('hover', i)"
        @newer="(e, i) => emit('newer', e, i)"
        @pieces="(p) => emit('pieces', p)"
        @line-up="emit('lineUp')"
      />
      <LapTools
        v-if="step && rest.lap && rest.lap.step === step.id"
        :step="step"
        :curve="rest.lap"
        :document="document"
        :piece="piece.id"
        :unit="unit"
        :colour="colour"
        @preview="(v) => emit('preview', v)"
        @commit="(v) => emit('set', v)"
        @take="(j) => emit('join', j)"
      />
      <SizePane v-if="!step" :document="document" :piece="piece" :design="design" />
    </div>
  </div>
</template>

<style scoped>
.in-hand {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  border-top: 1px solid var(--border);
}
.scroll {
  overflow: auto;
  padding: 6px 16px 12px;
  font-size: var(--size-text);
}
</style>
