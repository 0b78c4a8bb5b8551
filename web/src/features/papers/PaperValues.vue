<script setup lang="ts">
/** The values of a paper: what it is called, its faces, its stock, its sheet, and how it is cut. */
import type { Paper, Unit } from '@/shared/api/document'
import LengthInput from '@/shared/components/LengthInput.vue'
import NumberInput from '@/shared/components/NumberInput.vue'
import TextField from '@/shared/components/TextField.vue'

const props = defineProps<{ paper: Paper; unit: Unit }>()
const emit = defineEmits<{ change: [paper: Paper] }>()
const set = (values: Partial<Paper>) => emit('change', { ...props.paper, ...values })
</script>

<template>
  <div class="values">
    <label class="wide"><span>{{ $t('Name') }}</span><TextField :model-value="paper.name" :label="$t('Name of the paper')" :maxlength="60" @update:model-value="(v) => set({ name: v.trim() || $t('Paper') })" /></label>
    <label class="narrow"><span>{{ $t('Outside') }}</span><input type="color" :value="paper.outside" @change="set({ outside: ($event.target as HTMLInputElement).value })" /></label>
    <label class="narrow"><span>{{ $t('Inside') }}</span><input type="color" :value="paper.inside" @change="set({ inside: ($event.target as HTMLInputElement).value })" /></label>
    <label class="wide">
      <span>{{ $t('Thickness') }}</span>
      <LengthInput :model-value="paper.thickness" :unit="unit" :label="$t('Thickness')" :min="0.02" :max="5" @update:model-value="(v) => set({ thickness: v })" />
    </label>
    <label>
      <span>{{ $t('Weight in g/m²') }}</span>
      <NumberInput :model-value="paper.weight" :whole="false" suffix="" :label="$t('Weight in g/m²')" :min="20" :max="3000" @update:model-value="(weight) => set({ weight })" />
    </label>
    <label class="two">
      <span>{{ $t('Pattern') }}</span>
      <ElSelect :model-value="paper.pattern" :aria-label="$t('Pattern')" @update:model-value="(v: Paper['pattern']) => set({ pattern: v })">
        <ElOption value="none" :label="$t('none')" />
        <ElOption value="stripes" :label="$t('stripes')" />
        <ElOption value="dots" :label="$t('dots')" />
        <ElOption value="checks" :label="$t('checks')" />
        <ElOption value="lines" :label="$t('lines to write on')" />
      </ElSelect>
    </label>
    <template v-if="paper.pattern !== 'none'">
      <label class="narrow"><span>{{ $t('Its colour') }}</span><input type="color" :value="paper.pattern_colour" @change="set({ pattern_colour: ($event.target as HTMLInputElement).value })" /></label>
      <label><span>{{ $t('Pitch') }}</span><LengthInput :model-value="paper.pitch" :unit="unit" :label="$t('Pitch of the pattern')" :min="0.5" :max="200" @update:model-value="(v) => set({ pitch: v })" /></label>
      <label><span>{{ $t('Pattern turned') }}</span><NumberInput :model-value="paper.pattern_turn" :whole="false" suffix="°" :label="$t('Pattern turned')" :min="-360" :max="360" @update:model-value="(v) => set({ pattern_turn: v })" /></label>
    </template>
    <label :title="$t('Of a sheet, in whatever money; 0 is not known')"><span>{{ $t('Price') }}</span><NumberInput :model-value="paper.price" :whole="false" suffix="" :label="$t('Price of a sheet')" :min="0" :max="100000" @update:model-value="(v) => set({ price: v })" /></label>
    <label :title="$t('Share of light that it lets through: vellum about 60')">
      <span>{{ $t('See-through') }}</span>
      <NumberInput :model-value="Math.round(paper.light * 100)" :whole="true" suffix="%" :label="$t('See-through, in percent')" :min="0" :max="95" @update:model-value="(v) => set({ light: v / 100 })" />
    </label>
    <label :title="$t('How many times the knife runs along each cut, as thick board wants')"><span>{{ $t('Runs of a cut') }}</span><NumberInput :model-value="paper.cut_runs" :whole="true" suffix="" :label="$t('Runs of a cut')" :min="1" :max="8" @update:model-value="(v) => set({ cut_runs: v })" /></label>
    <label class="two">
      <span>{{ $t('Grain') }}</span>
      <ElSelect :model-value="paper.grain" :aria-label="$t('Grain')" @update:model-value="(v: Paper['grain']) => set({ grain: v })">
        <ElOption value="long" :label="$t('along the long side')" />
        <ElOption value="short" :label="$t('along the short side')" />
        <ElOption value="unknown" :label="$t('not known')" />
      </ElSelect>
    </label>
    <label><span>{{ $t('Sheet width') }}</span><LengthInput :model-value="paper.sheet_width" :unit="unit" :label="$t('Sheet width')" :min="20" :max="2000" @update:model-value="(v) => set({ sheet_width: v })" /></label>
    <label><span>{{ $t('Sheet height') }}</span><LengthInput :model-value="paper.sheet_height" :unit="unit" :label="$t('Sheet height')" :min="20" :max="2000" @update:model-value="(v) => set({ sheet_height: v })" /></label>
    <label :title="$t('On each side of the sheet, where the machine cannot reach')"><span>{{ $t('Edge of the sheet') }}</span><LengthInput :model-value="paper.edge" :unit="unit" :label="$t('Edge of the sheet')" :min="0" :max="100" @update:model-value="(v) => set({ edge: v })" /></label>
  </div>
</template>

<style scoped>
.values {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 8px;
}
label {
  grid-column: span 2;
  min-width: 0;
}
label.wide {
  grid-column: span 4;
}
label.wide:first-child {
  grid-column: span 6;
}
label.narrow {
  grid-column: span 3;
}
label.two {
  grid-column: span 6;
}
label span:first-child {
  display: block;
  font-size: var(--size-small);
  color: var(--text-soft);
}
input[type='color'] {
  width: 100%;
  height: 32px;
  padding: 2px;
  border: 1px solid var(--border-strong);
  border-radius: var(--radius);
  background: var(--surface);
}
</style>
