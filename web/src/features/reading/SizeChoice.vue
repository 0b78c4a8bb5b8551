<script setup lang="ts">
/** How large a drawing is: where its file does not say, each reading is drawn against a card. */
import { computed } from 'vue'
import type { Unit } from '@/shared/api/document'
import LengthInput from '@/shared/components/LengthInput.vue'
import { formatMeasures } from '@/shared/units/figures'

const props = defineProps<{
  /** Width and height in drawing units. */
  width: number
  height: number
  sizes: readonly { title: string; scale: number }[]
  /** The closed card that readings are drawn against. */
  card: { name: string; width: number; height: number }
  unit: Unit
  /** Height of a font's capitals in drawing units. */
  capitals?: number
}>()
const scale = defineModel<number>({ required: true })

const SIDE = 74
const pictures = computed(() =>
  props.sizes.map((s) => {
    const [w, h] = [props.width * s.scale, props.height * s.scale]
    const fit = SIDE / Math.max(w, h, props.card.width, props.card.height)
    return {
      ...s,
      w: w * fit,
      h: h * fit,
      cardW: props.card.width * fit,
      cardH: props.card.height * fit,
      measures: formatMeasures([w, h], 'mm', props.unit),
    }
  }),
)
const near = (a: number, b: number) => Math.abs(a - b) < 1e-9 * b
</script>

<template>
  <div class="size">
    <template v-if="sizes.length > 1">
      <p><strong>{{ $t('How large is it?') }}</strong> {{ $t('The file does not say for certain. Dashed: the {name} card, closed.', { name: card.name }) }}</p>
      <div v-arrows class="readings" role="radiogroup" :aria-label="$t('How large is it?')">
        <button
          v-for="p in pictures"
          :key="p.title"
          class="plain-button reading"
          role="radio"
          :aria-checked="near(scale, p.scale)"
          :class="{ chosen: near(scale, p.scale) }"
          @click="scale = p.scale"
        >
          <svg :viewBox="`${-SIDE / 2 - 2} ${-SIDE / 2 - 2} ${SIDE + 4} ${SIDE + 4}`" aria-hidden="true">
            <rect class="drawing" :x="-p.w / 2" :y="-p.h / 2" :width="Math.max(p.w, 0.8)" :height="Math.max(p.h, 0.8)" />
            <rect class="card" :x="-p.cardW / 2" :y="-p.cardH / 2" :width="p.cardW" :height="p.cardH" />
          </svg>
          <span class="figure">{{ p.measures }}</span>
          <span class="soft">{{ p.title }}</span>
        </button>
      </div>
    </template>
    <div class="own">
      <span class="soft">{{ sizes.length > 1 ? $t('Or its width is') : capitals ? $t('Width') : $t('Size as the file says. Width') }}</span>
      <LengthInput
        class="input"
        :model-value="width * scale"
        :unit="unit"
        :label="$t('Width of the drawing')"
        :above="0"
        :max="5000"
        @update:model-value="(v: number) => (scale = v / width)"
      />
      <template v-if="capitals">
        <span class="soft">{{ $t('or capitals high') }}</span>
        <LengthInput
          class="input"
          :model-value="capitals * scale"
          :unit="unit"
          :label="$t('Height of capitals')"
          :above="0"
          :max="2000"
          @update:model-value="(v: number) => (scale = v / capitals!)"
        />
      </template>
      <span v-else class="figure">{{ formatMeasures([width * scale, height * scale], 'mm', unit) }}</span>
    </div>
  </div>
</template>

<style scoped>
.size {
  display: grid;
  gap: 8px;
  font-size: var(--size-text);
}
.readings {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(96px, 1fr));
  gap: 8px;
}
.reading {
  display: grid;
  justify-items: center;
  padding: 6px 4px;
  border: 1px solid var(--border);
  border-radius: 8px;
  text-align: center;
  font-size: var(--size-figure);
  line-height: 1.3;
}
.reading svg {
  width: 74px;
  height: 74px;
}
.chosen {
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1px var(--accent);
  background: var(--accent-pale);
}
.drawing {
  fill: #a9c4cc;
  stroke: var(--ink-1);
}
.card {
  fill: none;
  stroke: var(--ink-2);
  stroke-dasharray: 3 2;
}
.own {
  display: flex;
  align-items: center;
  gap: 10px;
}
.input {
  width: 120px;
}
</style>
