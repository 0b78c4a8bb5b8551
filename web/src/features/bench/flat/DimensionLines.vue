<script setup lang="ts">
/** Dimension lines: overall size, panels across the folds, and each fold's exact position. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import type { Viewport } from './useViewport'

const props = defineProps<{ flat: Schemas['FlatView']; viewport: Viewport; unit: Unit }>()

interface Line {
  axis: 'x' | 'y'
  from: number
  to: number
  at: number
  text: string
}

const say = (mm: number) => formatLength(mm, props.unit, false)

const lines = computed<Line[]>(() => {
  const [left, head, right, foot] = props.flat.box
  if (right <= left) return []
  const { toX, toY } = props.viewport
  const found: Line[] = [
    { axis: 'x', from: toX(left), to: toX(right), at: toY(foot) + 46, text: say(right - left) },
    { axis: 'y', from: toY(head), to: toY(foot), at: toX(right) + 58, text: say(foot - head) },
  ]
  for (const axis of ['x', 'y'] as const) {
    const [low, high] = axis === 'x' ? [left, right] : [head, foot]
    const folds = props.flat.folds.filter((f) => f.axis === axis && f.folds).map((f) => f.at)
    if (!folds.length) continue
    const stops = [low, ...folds.sort((a, b) => a - b), high]
    for (let i = 1; i < stops.length; i += 1) {
      const [from, to] = [stops[i - 1]!, stops[i]!]
      if (to - from < 0.001) continue
      found.push(
        axis === 'x'
          ? { axis, from: toX(from), to: toX(to), at: toY(foot) + 22, text: say(to - from) }
          : { axis, from: toY(from), to: toY(to), at: toX(right) + 24, text: say(to - from) },
      )
    }
  }
  return found
})
</script>

<template>
  <g class="dimensions">
    <g v-for="(l, i) in lines" :key="i">
      <template v-if="l.axis === 'x'">
        <path :d="`M${l.from} ${l.at - 4}v8M${l.to} ${l.at - 4}v8M${l.from} ${l.at}H${l.to}`" />
        <rect :x="(l.from + l.to) / 2 - l.text.length * 3.9 - 4" :y="l.at - 9" :width="l.text.length * 7.8 + 8" height="18" />
        <text :x="(l.from + l.to) / 2" :y="l.at + 4">{{ l.text }}</text>
      </template>
      <template v-else>
        <path :d="`M${l.at - 4} ${l.from}h8M${l.at - 4} ${l.to}h8M${l.at} ${l.from}V${l.to}`" />
        <rect :x="l.at - 9" :y="(l.from + l.to) / 2 - l.text.length * 3.9 - 4" width="18" :height="l.text.length * 7.8 + 8" />
        <text :transform="`translate(${l.at + 4} ${(l.from + l.to) / 2}) rotate(-90)`">{{ l.text }}</text>
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
  font: 12px var(--figures);
  fill: var(--ink-1);
  text-anchor: middle;
}
</style>
