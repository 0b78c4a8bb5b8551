<script setup lang="ts">
/** For the hand: the layers of the closed card, and the table for scoring on a board. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import { t } from '@/shared/words'

const props = defineProps<{
  scoring: readonly Schemas['ScoreRow'][]
  shut: Schemas['ClosedView'] | null
  shaped: boolean
  unit: Unit
}>()
const WAYS: Record<string, string> = { mountain: t('mountain'), valley: t('valley') }
const mm = (value: number) => formatLength(value, 'mm', false)
const off = (value: number) => (Math.abs(value) < 0.0005 ? t('exact') : `${value > 0 ? '+' : '−'}${formatLength(Math.abs(value), 'mm')}`)
const edges = computed(() => [...new Set(props.scoring.map((r) => r.edge))].join(` ${t('or')} `))
</script>

<template>
  <div class="folds">
    <section v-if="shut && shut.layers.length > 1" :aria-label="$t('Layers')">
      <h3>{{ $t('Closed, from front to back') }}</h3>
      <ol class="layers">
        <li v-for="(l, i) in shut.layers" :key="i">
          <span class="mark" :class="{ turned: l.turned }" />{{ l.panel }}<span class="soft">{{ l.turned ? $t(' inside towards you') : $t(' outside towards you') }}</span>
        </li>
      </ol>
    </section>
    <section v-if="scoring.length" :aria-label="$t('Scoring by hand')">
      <h3>{{ $t('Scoring by hand, from the piece’s {edges} edge, as in the flat view and the files', { edges }) }}</h3>
      <table>
        <thead>
          <tr><th>{{ $t('No.') }}</th><th>{{ $t('Crease') }}</th><th>mm</th><th>{{ $t('in, nearest 1/16') }}</th><th>{{ $t('off') }}</th><th>{{ $t('Scored from') }}</th></tr>
        </thead>
        <tbody>
          <tr v-for="r in scoring" :key="r.order">
            <td class="figure">{{ r.order }}</td>
            <td>{{ r.fold }}, {{ r.made === 'perforate' ? $t('perforated') : WAYS[r.direction] ?? r.direction }}</td>
            <td class="figure">{{ mm(r.distance) }}</td>
            <td class="figure">{{ r.sixteenths }}</td>
            <td class="figure soft">{{ off(r.error) }}</td>
            <td>{{ r.side }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="shaped" class="soft">{{ $t('Ticks on the waste beside the outline mark where creases of a shaped edge begin.') }}</p>
    </section>
    <p v-else class="soft">{{ $t('There is no crease to score.') }}</p>
  </div>
</template>

<style scoped>
.folds {
  display: grid;
  gap: 10px;
}
h3 {
  margin: 0 0 3px;
  font-size: var(--size-small);
  font-weight: 600;
  color: var(--text-soft);
}
.layers {
  margin: 0;
  padding-left: 20px;
}
.mark {
  display: inline-block;
  width: 20px;
  height: 8px;
  margin-right: 8px;
  border: 1px solid var(--ink-2);
  background: var(--ink-2);
}
.mark.turned {
  background: var(--paper-0);
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: var(--size-small);
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--text-soft);
  font-size: var(--size-figure);
}
td,
th {
  padding: 2px 6px 2px 0;
  border-bottom: 1px solid var(--border);
}
p {
  font-size: var(--size-small);
  margin-top: 4px;
}
</style>
