<script setup lang="ts">
/** The card as it will be begun: folded, flat, and its figures in words. */
import { computed } from 'vue'
import type { Unit } from '@/shared/api/document'
import FoldedPicture from '@/shared/components/FoldedPicture.vue'
import PathPicture from '@/shared/components/PathPicture.vue'
import { formatFigure, formatMeasures } from '@/shared/units/figures'
import { decimal, t } from '@/shared/words'
import type { Beginning } from './useBeginnings'

const props = defineProps<{ way: Beginning; unit: Unit }>()
const mm = (value: number) => formatFigure(value, 'mm', props.unit)

/** By how much the figure was scaled, in percent, where it was. */
const scaled = computed(() => {
  const card = props.way.card
  if (!card?.size) return null
  const [across, down] = [card.size[0] / card.own[0], card.size[1] / card.own[1]]
  return Math.abs(across - 1) < 5e-4 && Math.abs(down - 1) < 5e-4 ? null : Math.round(across * 1000) / 10
})
const found = computed(() => {
  const card = props.way.card
  if (!card) return ''
  const more = card.errors + card.warnings - card.findings.length
  return card.findings.length ? [...card.findings, ...(more > 0 ? [t('And {more} more.', { more })] : [])] : [t('All checks pass.')]
})
</script>

<template>
  <section class="preview" :aria-label="$t('The card to begin with')" aria-live="polite">
    <p v-if="way.why" class="why" role="status">{{ way.why }}</p>
    <template v-else-if="way.card">
      <div class="pictures">
        <div class="folded"><FoldedPicture v-if="way.card.folded" :picture="way.card.folded" /></div>
        <div class="flat">
          <PathPicture v-if="way.card.flat" :path="way.card.flat.path" :box="way.card.flat.box" :folds="way.card.flat.folds" :colour="way.card.document.papers[0]?.outside" />
        </div>
      </div>
      <p class="about">{{ way.about }}</p>
      <dl>
        <div><dt>{{ $t('Closed') }}</dt><dd class="figure">{{ formatMeasures(way.card.closed, 'mm', unit) }}</dd></div>
        <div><dt>{{ $t('Unfolded') }}</dt><dd class="figure">{{ formatMeasures(way.card.open, 'mm', unit) }}</dd></div>
        <div v-if="way.card.lap !== null">
          <dt>{{ $t('Lap') }}</dt><dd class="figure">{{ mm(way.card.lap) }}</dd>
        </div>
        <div v-if="way.card.hinge !== null">
          <dt>{{ $t('Hinge') }}</dt><dd><span class="figure">{{ mm(way.card.hinge) }}</span><span class="soft">{{ $t('{safe} is safe', { safe: mm(way.card.safe ?? 0) }) }}</span></dd>
        </div>
        <div v-if="way.card.size">
          <dt>{{ $t('Figure') }}</dt>
          <dd>
            <span class="figure">{{ formatMeasures(way.card.size, 'mm', unit) }}</span>
            <span v-if="scaled" class="soft">{{ $t('{scaled} % of its own {own}', { scaled: decimal(scaled), own: formatMeasures(way.card.own, 'mm', unit) }) }}</span>
            <span v-else class="soft">{{ $t('its own size') }}</span>
          </dd>
        </div>
      </dl>
      <ul class="found" :class="{ good: !way.card.findings.length }">
        <li v-for="(line, i) in found" :key="i">{{ line }}</li>
      </ul>
      <p v-if="way.card.findings.length" class="soft mended">{{ $t('The bench shows each of them, and most are mended in one press.') }}</p>
    </template>
  </section>
</template>

<style scoped>
.preview {
  display: grid;
  align-content: start;
  gap: 8px;
  min-height: 0;
}
.pictures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  height: 190px;
  padding: 10px;
  background: var(--chrome);
  border-radius: 8px;
}
.pictures > div {
  min-width: 0;
  min-height: 0;
  height: 170px;
}
.about {
  font-size: var(--size-text);
}
dl {
  margin: 0;
  font-size: var(--size-text);
}
dl > div {
  display: grid;
  grid-template-columns: minmax(62px, max-content) 1fr;
  gap: 8px;
  padding: 2px 0;
}
dt {
  color: var(--text-soft);
}
dd {
  margin: 0;
}
dd .soft {
  margin-left: 8px;
  font-size: var(--size-small);
}
.found {
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: var(--size-small);
  color: var(--warning);
}
.found li::before {
  content: '△ ';
}
.found.good {
  color: var(--good);
}
.found.good li::before {
  content: '✓ ';
}
.mended {
  font-size: var(--size-small);
}
.why {
  padding: 18px;
  background: var(--chrome);
  border-radius: 8px;
}
</style>
