<script setup lang="ts">
/** The report: whether it is what was meant, what is wrong, what came loose; each line shows its place. */
import { computed } from 'vue'
import { formatTime } from './formats'
import type { CutResult, Fault, Loose } from './types'

const props = defineProps<{ result: CutResult; meant: boolean }>()
const emit = defineEmits<{ look: [place: [number, number] | null, piece: number | null] }>()
const pieces = computed(() => props.result.loose.map((l, i) => ({ l, i })).filter(({ l }) => l.meant))
const others = computed(() => props.result.loose.map((l, i) => ({ l, i })).filter(({ l }) => !l.meant))
const good = computed(() => !props.result.faults.length && !props.result.joined.length)
const verdict = computed(() => {
  if (props.result.faults.length) return `${props.result.faults.length} ${props.result.faults.length === 1 ? 'fault' : 'faults'}`
  if (!props.meant) return `${props.result.loose.length} pieces would come loose`
  if (props.result.missing) return `${props.result.missing} ${props.result.missing === 1 ? 'piece stays' : 'pieces stay'} in the sheet`
  return 'As it was meant'
})
const deviation = (l: Loose) => l.meant?.deviation_mm ?? 0
const middle = (b: readonly number[]): [number, number] => [(b[0]! + b[2]!) / 2, (b[1]! + b[3]!) / 2]
const look = (f: Fault) => emit('look', f.at, null)
</script>

<template>
  <div class="report">
    <p class="verdict" :class="good ? 'good' : 'bad'"><span aria-hidden="true">{{ good ? '✓' : '✕' }}</span> {{ verdict }}</p>
    <p v-if="meant && result.worst_mm" class="soft">Outlines are within <span class="figure">{{ result.worst_mm.toFixed(3) }} mm</span> of the meant ones.</p>
    <section v-if="result.faults.length">
      <h2>What is wrong</h2>
      <button v-for="(f, i) in result.faults" :key="i" class="plain-button row fault" @click="look(f)">
        {{ f.message }}<span v-if="f.at_s !== null" class="figure soft"> after {{ formatTime(f.at_s) }}</span>
      </button>
    </section>
    <section v-if="result.joined.length">
      <h2>Stays joined to the sheet</h2>
      <button v-for="(j, i) in result.joined" :key="i" class="plain-button row" @click="emit('look', j.at, null)">
        {{ j.meant ? `${j.meant.piece}, ${j.meant.design}` : 'An outline' }}<span v-if="j.gap_mm" class="figure soft"> gap {{ j.gap_mm.toFixed(2) }} mm</span>
      </button>
    </section>
    <section v-if="pieces.length">
      <h2>Came loose: {{ pieces.length }} {{ pieces.length === 1 ? 'part of a card' : 'parts of cards' }}</h2>
      <button v-for="{ l, i } in pieces" :key="i" class="plain-button row" @click="emit('look', middle(l.bounds_mm), i)">
        <span>{{ l.meant!.piece }}</span> <span class="soft">{{ l.meant!.design }}</span>
        <span class="figure" :class="l.meant!.grade">{{ deviation(l).toFixed(3) }} mm</span>
      </button>
    </section>
    <section v-if="others.length">
      <h2>{{ meant ? 'Waste' : 'Came loose' }}: {{ others.length }}</h2>
      <button v-for="{ l, i } in others.slice(0, 60)" :key="i" class="plain-button row" @click="emit('look', middle(l.bounds_mm), i)">
        <span class="figure">{{ l.area_mm2.toFixed(1) }} mm²</span> <span class="soft">{{ formatTime(l.at_s) }}</span>
      </button>
      <p v-if="others.length > 60" class="soft">and {{ others.length - 60 }} more</p>
    </section>
    <section>
      <h2>Passes</h2>
      <p v-for="(p, i) in result.passes" :key="i" class="row still"><span>{{ p.tool }}</span><span class="figure">{{ p.length_mm.toFixed(0) }} mm · {{ p.lifts }} lifts · {{ formatTime(p.time_s) }}</span></p>
      <p class="row still"><span>in all</span><span class="figure">{{ formatTime(result.time_s) }}</span></p>
    </section>
    <p v-for="text in result.left_out" :key="text" class="soft">{{ text }}</p>
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
