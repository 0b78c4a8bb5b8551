<script setup lang="ts">
/** The closed card from its front over its envelope, to scale: what shows round it, what stands out. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import { formatFigure } from '@/shared/units/figures'
import { called, t } from '@/shared/words'

const props = defineProps<{ shut: Schemas['ClosedView']; unit: Unit }>()
const all = computed(() => {
  const boxes = [props.shut.box, ...(props.shut.envelope ? [props.shut.envelope] : [])]
  return [
    Math.min(...boxes.map((b) => b[0])),
    Math.min(...boxes.map((b) => b[1])),
    Math.max(...boxes.map((b) => b[2])),
    Math.max(...boxes.map((b) => b[3])),
  ] as const
})
const view = computed(() => {
  const [l, h, r, f] = all.value
  const margin = Math.max(r - l, f - h) * 0.05
  return `${l - margin} ${h - margin} ${r - l + 2 * margin} ${f - h + 2 * margin}`
})
const pitch = computed(() => Math.max(all.value[2] - all.value[0], all.value[3] - all.value[1]) / 55)
const say = (mm: number) => formatLength(mm, props.unit)
const words = computed(() => {
  const { shut } = props
  const found = []
  if (shut.reveal_area > 0.5) found.push({ kind: 'reveal', text: t('back seen round the front: {by}, {area}', { by: say(shut.reveal_by), area: formatFigure(shut.reveal_area, 'mm2', props.unit) }) })
  if (shut.out_area > 0.5) found.push({ kind: 'out', text: t('front stands out: {by}, {area}', { by: say(shut.out_by), area: formatFigure(shut.out_area, 'mm2', props.unit) }) })
  if (!found.length) found.push({ kind: '', text: t('front and back close flush') })
  return found
})
</script>

<template>
  <div class="closed">
    <svg :viewBox="view" role="img" :aria-label="$t('The closed card over its envelope')">
      <defs>
        <pattern id="hatch-reveal" :width="pitch" :height="pitch" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect :width="pitch" :height="pitch" class="ground" /><path :d="`M0 0V${pitch}`" class="reveal" />
        </pattern>
        <pattern id="hatch-out" :width="pitch" :height="pitch" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <rect :width="pitch" :height="pitch" class="ground" /><path :d="`M0 0V${pitch}`" class="out" />
        </pattern>
      </defs>
      <rect v-if="shut.envelope" class="envelope" :x="shut.envelope[0]" :y="shut.envelope[1]" :width="shut.envelope[2] - shut.envelope[0]" :height="shut.envelope[3] - shut.envelope[1]" />
      <path v-for="(s, i) in shut.sheets" :key="i" class="sheet" :class="s.what" :d="s.path" :fill="s.what === 'line' ? 'none' : s.fill" :fill-opacity="1 - (s.light ?? 0)" :style="s.what === 'line' ? { stroke: s.fill } : undefined" />
      <path v-if="shut.reveal" :d="shut.reveal" fill="url(#hatch-reveal)" class="part" />
      <path v-if="shut.out" :d="shut.out" fill="url(#hatch-out)" class="part" />
    </svg>
    <p v-for="w in words" :key="w.text" class="word" :class="w.kind">{{ w.text }}</p>
    <p v-if="shut.envelope_name" class="word soft">{{ $t('over the {envelope} envelope, to scale', { envelope: called(shut.envelope_name) }) }}</p>
  </div>
</template>

<style scoped>
.closed {
  display: grid;
  grid-template-rows: minmax(0, 1fr);
  grid-auto-rows: auto;
  padding: 34px 12px 4px;
  background: linear-gradient(var(--paper-3), var(--paper-1));
}
svg {
  width: 100%;
  height: 100%;
  min-height: 0;
}
path,
rect {
  vector-effect: non-scaling-stroke;
}
.envelope {
  fill: var(--paper-2);
  stroke: var(--ink-3);
  stroke-dasharray: 5 3;
}
.sheet {
  stroke: var(--ink-1);
}
.print {
  stroke: none;
}
.part {
  stroke: var(--ink-1);
}
.ground {
  fill: var(--paper-0);
}
.reveal {
  stroke: var(--sea);
  stroke-width: 1.6px;
}
.out {
  stroke: var(--copper);
  stroke-width: 1.6px;
}
p.word {
  stroke: none;
  font-size: var(--size-small);
  text-align: center;
}
p.reveal {
  color: var(--sea);
}
p.out {
  color: var(--copper-dark);
}
</style>
