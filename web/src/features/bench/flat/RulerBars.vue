<script setup lang="ts">
/** Rulers along head and left, from the piece's own top left, in the present unit. */
import { computed } from 'vue'
import type { Unit } from '@/shared/api/document'
import { decimal } from '@/shared/words'
import type { Viewport } from './useViewport'

const props = defineProps<{ viewport: Viewport; unit: Unit; originX: number; originY: number }>()
const SIZE = 24

interface Tick {
  at: number
  length: number
  label: string
}

function ticks(origin: number, toPx: (mm: number) => number, extent: number): Tick[] {
  const mm = props.unit === 'in' ? 25.4 : 1
  const perUnit = props.viewport.view.scale * mm
  const steps = props.unit === 'in' ? [1 / 16, 1 / 8, 1 / 4, 1 / 2, 1, 2, 5, 10] : [0.1, 0.5, 1, 2, 5, 10, 20, 50, 100]
  const minor = steps.find((s) => s * perUnit >= 6) ?? steps.at(-1)!
  const major = steps.find((s) => s * perUnit >= 46 && Math.abs(s / minor - Math.round(s / minor)) < 1e-9) ?? minor * 10
  // seen from the inside they run from right to left
  const each = toPx(origin + 1) < toPx(origin) ? -perUnit * minor : perUnit * minor
  const [low, high] = [(SIZE - toPx(origin)) / each, (extent - toPx(origin)) / each].sort((a, b) => a - b)
  const first = Math.ceil(low!)
  const last = Math.floor(high!)
  const every = Math.max(1, Math.round(major / minor))
  const found: Tick[] = []
  for (let k = first; k <= last && found.length < 2000; k += 1) {
    const main = k % every === 0
    found.push({
      at: toPx(origin + k * minor * mm),
      length: main ? 10 : (2 * k) % every === 0 ? 7 : 4,
      label: main ? decimal(Math.round(k * minor * 1000) / 1000) : '',
    })
  }
  return found
}

const across = computed(() => ticks(props.originX, props.viewport.toX, props.viewport.view.width))
const down = computed(() => ticks(props.originY, props.viewport.toY, props.viewport.view.height))
// all in one path: they move with every edit that moves the outline
const lines = computed(() => {
  const upright = across.value.map((tick) => `M${tick.at} ${SIZE - tick.length}V${SIZE}`)
  const level = down.value.map((tick) => `M${SIZE - tick.length} ${tick.at}H${SIZE}`)
  return [...upright, ...level].join('')
})
const labelled = (some: readonly Tick[]) => some.filter((tick) => tick.label)
</script>

<template>
  <g class="rulers" aria-hidden="true">
    <rect class="bar" x="0" y="0" :width="viewport.view.width" :height="SIZE" />
    <rect class="bar" x="0" y="0" :width="SIZE" :height="viewport.view.height" />
    <path class="ticks" :d="lines" />
    <text v-for="(tick, n) in labelled(across)" :key="`x${n}`" :x="tick.at + 3" y="11">{{ tick.label }}</text>
    <text v-for="(tick, n) in labelled(down)" :key="`y${n}`" :transform="`translate(10 ${tick.at - 3}) rotate(-90)`">{{ tick.label }}</text>
    <rect class="bar" x="0" y="0" :width="SIZE" :height="SIZE" />
    <text class="corner" :x="SIZE / 2" :y="SIZE / 2 + 3">{{ unit }}</text>
  </g>
</template>

<style scoped>
.bar {
  fill: var(--chrome-deep);
}
.ticks {
  stroke: var(--ink-3);
}
text {
  font: var(--size-figure) var(--figures);
  fill: var(--text-soft);
}
.corner {
  text-anchor: middle;
}
</style>
