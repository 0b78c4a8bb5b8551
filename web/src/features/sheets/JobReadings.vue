<script setup lang="ts">
/** What the sheets come to: use, sheets, price, weight, and what would save one. */
import { computed } from 'vue'
import { decimal, t } from '@/shared/words'
import type { Layout } from './types'

const props = defineProps<{ layout: Layout; number: number; cards: number }>()
const used = (i: number) => {
  const s = props.layout.sheets[i]
  if (!s) return 0
  return (100 * s.pieces.reduce((sum, p) => sum + (props.layout.parts[p.part]?.area ?? 0), 0)) / (s.width * s.height)
}
/** Sheets of each paper, or the length of its roll, where there are several papers or a roll. */
const papers = computed(() => {
  const found = new Map<string, { name: string; count: number; length: number; roll: boolean }>()
  for (const s of props.layout.sheets) {
    const one = found.get(s.stock) ?? { name: s.paper, count: 0, length: 0, roll: s.roll ?? false }
    found.set(s.stock, { ...one, count: one.count + 1, length: one.length + s.height })
  }
  const all = [...found.values()]
  if (all.length < 2 && !all.some((p) => p.roll)) return []
  return all.map((p) => [t('… of {name}', { name: p.name }), p.roll ? `${Math.round(p.length)} mm` : `${p.count}`])
})
const rows = computed(() => [
  [t('Sheets'), `${props.layout.sheets.length}`],
  ...papers.value,
  [t('At least, by area'), `${props.layout.bound}`],
  [t('Sheet {number} used', { number: props.number + 1 }), `${used(props.number).toFixed(0)} %`],
  [t('Cards weigh'), `${decimal(props.layout.weight_g.toFixed(1))} g`],
  ...(props.layout.price ? [[t('Sheets cost'), decimal(props.layout.price.toFixed(2))], [t('One card'), decimal((props.layout.price / Math.max(1, props.cards)).toFixed(2))]] : []),
])
</script>

<template>
  <section class="readings">
    <h2>{{ $t('Readings') }}</h2>
    <dl>
      <template v-for="[label, value] in rows" :key="label"><dt>{{ label }}</dt><dd class="figure">{{ value }}</dd></template>
    </dl>
    <p v-for="text in layout.advice" :key="text" class="advice">{{ text }}</p>
  </section>
</template>

<style scoped>
.readings {
  display: block !important;
  font-size: var(--size-text);
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 3px 8px;
  margin: 4px 0 0;
}
dd {
  margin: 0;
  text-align: right;
}
.advice {
  margin-top: 8px;
  padding: 6px 8px;
  border-left: 3px solid var(--accent);
  background: var(--accent-pale);
}
</style>
