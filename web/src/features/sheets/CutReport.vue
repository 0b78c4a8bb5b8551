<script setup lang="ts">
/** The report: whether it is what was meant, what is wrong, what came loose; each line shows its place. */
import { computed } from 'vue'
import { formatFigure } from '@/shared/units/figures'
import { formatLength } from '@/shared/units/lengths'
import { decimal, t } from '@/shared/words'
import { formatTime } from './formats'
import type { CutResult, Fault, Loose } from './types'

const props = defineProps<{ result: CutResult; meant: boolean }>()
const emit = defineEmits<{ look: [place: [number, number] | null, piece: number | null] }>()
const pieces = computed(() => props.result.loose.map((l, i) => ({ l, i })).filter(({ l }) => l.meant))
const others = computed(() => props.result.loose.map((l, i) => ({ l, i })).filter(({ l }) => !l.meant))
/** Without a design there is nothing to say of a file that has no fault: it is neither good nor bad. */
const grade = computed(() => {
  if (props.result.faults.length || props.result.joined.length) return 'bad'
  return props.meant ? 'good' : 'neutral'
})
const MARKS = { good: '✓', bad: '✕', neutral: '–' }
const verdict = computed(() => {
  if (props.result.faults.length) return t('{n} fault | {n} faults', props.result.faults.length)
  if (!props.meant) return t('{n} piece would come loose | {n} pieces would come loose', props.result.loose.length)
  if (props.result.missing) return t('{n} piece stays in the sheet | {n} pieces stay in the sheet', props.result.missing)
  return t('As it was meant')
})
const deviation = (l: Loose) => l.meant?.deviation_mm ?? 0
const middle = (b: readonly number[]): [number, number] => [(b[0]! + b[2]!) / 2, (b[1]! + b[3]!) / 2]
const look = (f: Fault) => emit('look', f.at, null)
</script>

<template>
  <div class="report">
    <p class="verdict" :class="grade"><span aria-hidden="true">{{ MARKS[grade] }}</span> {{ verdict }}</p>
    <p v-if="!meant" class="soft">{{ $t('Not compared with a design: whether lines are missing, added or in the wrong place is not known.') }}</p>
    <p v-if="meant && result.worst_mm" class="soft">{{ $t('Outlines are within {off} mm of the meant ones.', { off: decimal(result.worst_mm.toFixed(3)) }) }}</p>
    <section v-if="result.faults.length">
      <h2>{{ $t('What is wrong') }}</h2>
      <button v-for="(f, i) in result.faults" :key="i" class="plain-button row fault" @click="look(f)">
        {{ f.message }}<span v-if="f.at_s !== null" class="figure soft"> {{ $t('after {time}', { time: formatTime(f.at_s) }) }}</span>
      </button>
    </section>
    <section v-if="result.joined.length">
      <h2>{{ $t('Stays joined to the sheet') }}</h2>
      <button v-for="(j, i) in result.joined" :key="i" class="plain-button row" @click="emit('look', j.at, null)">
        {{ j.meant ? `${j.meant.piece}, ${j.meant.design}` : $t('An outline') }}<span v-if="j.gap_mm" class="figure soft"> {{ $t('gap {gap}', { gap: formatLength(j.gap_mm, 'mm') }) }}</span>
      </button>
    </section>
    <section v-if="pieces.length">
      <h2>{{ $t('Came loose: {n} part of a card | Came loose: {n} parts of cards', pieces.length) }}</h2>
      <button v-for="{ l, i } in pieces" :key="i" class="plain-button row" @click="emit('look', middle(l.bounds_mm), i)">
        <span>{{ l.meant!.piece }}</span> <span class="soft">{{ l.meant!.design }}</span>
        <span class="figure" :class="l.meant!.grade">{{ decimal(deviation(l).toFixed(3)) }} mm</span>
      </button>
    </section>
    <section v-if="others.length">
      <h2>{{ meant ? $t('Waste') : $t('Came loose') }}: {{ others.length }}</h2>
      <button v-for="{ l, i } in others.slice(0, 60)" :key="i" class="plain-button row" @click="emit('look', middle(l.bounds_mm), i)">
        <span class="figure">{{ formatFigure(l.area_mm2, 'mm2', 'mm') }}</span> <span class="soft">{{ formatTime(l.at_s) }}</span>
      </button>
      <p v-if="others.length > 60" class="soft">{{ $t('and {n} more', { n: others.length - 60 }) }}</p>
    </section>
    <section>
      <h2>{{ $t('Passes') }}</h2>
      <p v-for="(p, i) in result.passes" :key="i" class="row still"><span>{{ p.tool }}</span><span class="figure">{{ $t('{length} · {n} lift · {time} | {length} · {n} lifts · {time}', { length: `${p.length_mm.toFixed(0)} mm`, time: formatTime(p.time_s) }, p.lifts) }}</span></p>
      <p class="row still"><span>{{ $t('in all') }}</span><span class="figure">{{ formatTime(result.time_s) }}</span></p>
    </section>
    <p v-for="one in result.left_out" :key="one.reason" class="soft">{{ one.reason }}<template v-if="one.line"> {{ $t('(line {line})', { line: one.line }) }}</template></p>
  </div>
</template>

<style scoped>
.report {
  display: grid;
  gap: 12px;
  align-content: start;
  font-size: var(--size-text);
}
.verdict {
  font-size: var(--size-heading);
  font-weight: 650;
}
section {
  display: grid;
  gap: 2px;
}
h2 {
  margin-bottom: 2px;
}
.row {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 8px;
  min-height: 26px;
  align-items: center;
  padding: 2px 6px;
  border-radius: 4px;
}
.row .soft {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.row.still {
  grid-template-columns: 1fr auto;
}
.fault .figure {
  margin-left: 6px;
}
.fault {
  display: block;
  border-left: 3px solid var(--error);
}
button.row:hover {
  background: var(--chrome-deep);
}
.good {
  color: var(--good);
}
.bad {
  color: var(--error);
}
.off {
  color: var(--warning);
}
.fair {
  color: var(--note);
}
</style>
