<script lang="ts">
import { t } from '@/shared/words'

/** What a gap is measured from. */
export const FROM = { left: t('from the left'), right: t('from the right'), head: t('from the head'), foot: t('from the foot') }
</script>

<script setup lang="ts">
/** The gaps of a thing in hand to the edges of what it is on; each can be typed over. */
import { computed } from 'vue'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import type { Bounds, Viewport } from '../useViewport'

interface Gap {
  side: 'left' | 'right' | 'head' | 'foot'
  axis: 'x' | 'y'
  /** Which way the thing goes as the gap grows. */
  sign: 1 | -1
  mm: number
  d: string
  x: number
  y: number
}
const props = defineProps<{
  box: Bounds
  /** Its box in pixels, with its middle. */
  px: Readonly<{ cx: number; cy: number }>
  within: readonly number[]
  /** Pixels by which the upper figure steps aside. */
  aside: number
  viewport: Viewport
  unit: Unit
}>()
const emit = defineEmits<{ type: [gap: Gap] }>()

const gaps = computed<Gap[]>(() => {
  const [left, head, right, foot] = props.within as [number, number, number, number]
  const { box: b, px } = props
  const { toX, toY } = props.viewport
  const level = (side: Gap['side'], from: number, to: number, sign: 1 | -1): Gap => ({
    side, axis: 'x', sign, mm: to - from, d: `M${toX(from)} ${px.cy}H${toX(to)}`, x: (toX(from) + toX(to)) / 2, y: px.cy,
  })
  const upright = (side: Gap['side'], from: number, to: number, sign: 1 | -1): Gap => ({
    side, axis: 'y', sign, mm: to - from, d: `M${px.cx} ${toY(from)}V${toY(to)}`, x: px.cx, y: (toY(from) + toY(to)) / 2,
  })
  const above = upright('head', head, b.head, 1)
  return [
    level('left', left, b.left, 1),
    level('right', b.right, right, -1),
    { ...above, x: above.x + props.aside },
    upright('foot', b.foot, foot, -1),
  ]
})
</script>

<template>
  <g class="gaps">
    <template v-for="g in gaps" :key="g.side">
      <path :d="g.d" />
      <text
        :x="g.x"
        :y="g.y - 4"
        role="button"
        tabindex="0"
        :aria-label="$t('{figure}: type another figure', { figure: `${formatLength(g.mm, unit, false)}, ${FROM[g.side]}` })"
        :data-gap="g.side"
        @pointerdown.stop
        @click="emit('type', g)"
        @keydown.enter.prevent="emit('type', g)"
      >
        {{ formatLength(g.mm, unit, false) }}
      </text>
    </template>
  </g>
</template>

<style scoped>
text {
  font: var(--size-figure) var(--figures);
  fill: var(--ink-1);
  text-anchor: middle;
  paint-order: stroke;
  stroke: var(--surface);
  stroke-width: 4px;
  cursor: text;
}
text:focus-visible {
  text-decoration: underline;
  outline: none;
}
path {
  stroke: var(--ink-3);
  fill: none;
}
</style>
