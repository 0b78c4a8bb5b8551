<script setup lang="ts">
/**
 * Dimension lines: overall size, panels across the folds, and each fold's exact position. Those that
 * are a measure of the card itself can be typed over.
 */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { DesignData, Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import { t } from '@/shared/words'
import { lanesOf } from './lanes'
import { sidesOf } from './sides'
import type { Typed } from './typed'
import type { Viewport } from './useViewport'

const props = defineProps<{ flat: Schemas['FlatView']; document: DesignData; viewport: Viewport; unit: Unit }>()
const emit = defineEmits<{ type: [typed: Typed]; measure: [axis: 'x' | 'y', mm: number] }>()

interface Line {
  axis: 'x' | 'y'
  from: number
  to: number
  at: number
  mm: number
  text: string
  /** How far the figure stands outwards of its line; null where it stands nowhere. */
  out: number | null
}

/** The closed card's measure along an axis, as the document has it. */
const closed = (axis: 'x' | 'y') => {
  const { size, turned } = props.document.card
  return (axis === 'x') === turned ? size.height : size.width
}
/** Whether a line is the card's own measure, and not what steps have made of it. */
const isMeasure = (l: Line) =>
  props.flat.panels.length > 0 && Math.abs(l.mm - closed(l.axis)) < 1e-6

function typeOver(l: Line) {
  if (!isMeasure(l)) return
  const middle = (l.from + l.to) / 2
  const label = l.axis === 'x' ? t('Width of the closed card') : t('Height of the closed card')
  const take = (mm: number) => emit('measure', l.axis, mm)
  emit('type', { x: l.axis === 'x' ? middle : l.at, y: l.axis === 'x' ? l.at : middle, value: l.mm, label, take })
}

/** px from one figure to the next outwards, and how many there are at most. */
const LANE = 15
const LANES = 3
const halfOf = (text: string) => text.length * 3.9 + 4
const say = (mm: number) => formatLength(mm, props.unit, false)

const lines = computed<Line[]>(() => {
  const [left, head, right, foot] = props.flat.box
  if (right <= left) return []
  const { toX, toY } = props.viewport
  const beside = Math.max(toX(left), toX(right))
  const found: Line[] = []
  const outmost = { x: 0, y: 0 }
  for (const axis of ['x', 'y'] as const) {
    const [low, high] = axis === 'x' ? [left, right] : [head, foot]
    const folds = props.flat.folds.filter((f) => f.axis === axis && f.folds && !f.inner)
    if (!folds.length) continue
    const stops = [low, ...sidesOf(folds), high]
    const row: Line[] = []
    for (let i = 1; i < stops.length; i += 1) {
      const [from, to] = [stops[i - 1]!, stops[i]!]
      if (to - from < 0.001) continue
      row.push(
        axis === 'x'
          ? { axis, from: toX(from), to: toX(to), at: toY(foot) + 22, mm: to - from, text: say(to - from), out: 0 }
          : { axis, from: toY(from), to: toY(to), at: beside + 24, mm: to - from, text: say(to - from), out: 0 },
      )
    }
    const lanes = lanesOf(row.map((l) => ({ middle: (l.from + l.to) / 2, half: halfOf(l.text), room: l.to - l.from })), LANES)
    row.forEach((l, i) => {
      l.out = lanes[i] === null ? null : lanes[i]! * LANE
      outmost[axis] = Math.max(outmost[axis], l.out ?? 0)
    })
    found.push(...row)
  }
  const overall: Line[] = [
    { axis: 'x', from: toX(left), to: toX(right), at: toY(foot) + 46 + outmost.x, mm: right - left, text: say(right - left), out: 0 },
    { axis: 'y', from: toY(head), to: toY(foot), at: beside + 58 + outmost.y, mm: foot - head, text: say(foot - head), out: 0 },
  ]
  return [...overall, ...found]
})
</script>

<template>
  <g class="dimensions">
    <g
      v-for="(l, i) in lines"
      :key="i"
      :class="{ own: isMeasure(l) }"
      :role="isMeasure(l) ? 'button' : undefined"
      :tabindex="isMeasure(l) ? 0 : undefined"
      :aria-label="isMeasure(l) ? $t('{text}: type another measure for the card', { text: l.text }) : undefined"
      @pointerdown="(e) => isMeasure(l) && e.stopPropagation()"
      @click="typeOver(l)"
      @keydown.enter.prevent="typeOver(l)"
    >
      <title v-if="l.out === null">{{ l.text }}</title>
      <template v-if="l.axis === 'x'">
        <path :d="`M${l.from} ${l.at - 4}v8M${l.to} ${l.at - 4}v8M${l.from} ${l.at}H${l.to}`" />
        <rect v-if="l.out === 0" :x="(l.from + l.to) / 2 - halfOf(l.text)" :y="l.at - 9" :width="halfOf(l.text) * 2" height="18" />
        <text v-if="l.out !== null" :x="(l.from + l.to) / 2" :y="l.at + 4 + l.out">{{ l.text }}</text>
      </template>
      <template v-else>
        <path :d="`M${l.at - 4} ${l.from}h8M${l.at - 4} ${l.to}h8M${l.at} ${l.from}V${l.to}`" />
        <rect v-if="l.out === 0" :x="l.at - 9" :y="(l.from + l.to) / 2 - halfOf(l.text)" width="18" :height="halfOf(l.text) * 2" />
        <text v-if="l.out !== null" :transform="`translate(${l.at + 4 + l.out} ${(l.from + l.to) / 2}) rotate(-90)`">{{ l.text }}</text>
      </template>
    </g>
  </g>
</template>

<style scoped>
path {
  stroke: var(--ink-3);
  fill: none;
}
rect {
  fill: var(--surface);
}
text {
  font: var(--size-small) var(--figures);
  fill: var(--ink-1);
  text-anchor: middle;
}
.own {
  cursor: text;
  outline: none;
}
.own:hover text,
.own:focus-visible text {
  text-decoration: underline;
}
</style>
