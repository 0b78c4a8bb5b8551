<script setup lang="ts">
/** Folds where there is paper under them, and each one's position from both edges and the centre. */
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import type { Viewport } from './useViewport'

type Fold = Schemas['FoldView']
const props = defineProps<{ folds: readonly Fold[]; viewport: Viewport; unit: Unit }>()

const say = (mm: number) => formatLength(mm, props.unit, false)
function label(fold: Fold): string {
  const [low, high, middle] = fold.axis === 'x' ? ['left', 'right', 'centre'] : ['head', 'foot', 'middle']
  return `${fold.name}  ${say(fold.from_left)} ${low} · ${say(fold.from_right)} ${high} · ${say(fold.from_centre)} ${middle}`
}
function place(fold: Fold) {
  const width = label(fold).length * 6.65 + 14
  const { toX, toY, view } = props.viewport
  if (fold.axis === 'x') {
    return { x: Math.max(30, Math.min(toX(fold.at) - width / 2, view.width - width - 6)), y: 30, width }
  }
  return { x: 30, y: toY(fold.at) + 6, width }
}
const kind = (fold: Fold) => (fold.made === 'score' ? fold.direction : fold.made)
</script>

<template>
  <g class="folds">
    <g v-for="fold in folds" :key="fold.name">
      <line
        v-if="fold.axis === 'x'"
        class="axis"
        :x1="viewport.toX(fold.at)"
        :x2="viewport.toX(fold.at)"
        y1="54"
        :y2="viewport.view.height"
      />
      <line
        v-else
        class="axis"
        :y1="viewport.toY(fold.at)"
        :y2="viewport.toY(fold.at)"
        x1="24"
        :x2="viewport.view.width"
      />
      <g v-for="(s, i) in fold.spans" :key="i">
        <line
          class="span"
          :class="kind(fold)"
          :x1="viewport.toX(s[0])"
          :y1="viewport.toY(s[1])"
          :x2="viewport.toX(s[2])"
          :y2="viewport.toY(s[3])"
        />
        <text
          v-if="fold.spans.length > 1"
          class="length"
          :x="(viewport.toX(s[0]) + viewport.toX(s[2])) / 2 + (fold.axis === 'x' ? 8 : 0)"
          :y="(viewport.toY(s[1]) + viewport.toY(s[3])) / 2 - (fold.axis === 'x' ? -4 : 7)"
          :text-anchor="fold.axis === 'x' ? 'start' : 'middle'"
        >
          {{ say(Math.abs(s[2] - s[0]) + Math.abs(s[3] - s[1])) }}
        </text>
      </g>
      <g :transform="`translate(${place(fold).x} ${place(fold).y})`">
        <rect class="tag" :width="place(fold).width" height="19" rx="4" />
        <text class="text" x="7" y="13.5">{{ label(fold) }}</text>
      </g>
    </g>
  </g>
</template>

<style scoped>
.axis {
  stroke: var(--line-fold);
  stroke-width: 0.8;
  stroke-dasharray: 1 5;
}
.span {
  stroke: var(--line-fold);
  stroke-width: 2.4;
}
.mountain {
  stroke-dasharray: 11 3 2 3;
}
.valley {
  stroke-dasharray: 6 4;
}
.perforate {
  stroke-width: 3;
  stroke-dasharray: 4 2.5;
}
.none {
  stroke-width: 1.2;
  stroke-dasharray: 2 3;
}
.length {
  font: 600 11.5px var(--figures);
  fill: var(--line-fold);
  paint-order: stroke;
  stroke: var(--surface);
  stroke-width: 4px;
}
.tag {
  fill: var(--surface);
  stroke: var(--border-strong);
}
.text {
  font: 11px var(--figures);
  fill: var(--line-fold);
  white-space: pre;
}
</style>
