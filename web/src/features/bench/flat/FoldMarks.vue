<script setup lang="ts">
/** Folds where there is paper under them: how they are made, which way they point, where they lie. */
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength } from '@/shared/units/lengths'
import { called, t } from '@/shared/words'
import type { Viewport } from './useViewport'

type Fold = Schemas['FoldView']
type Stroke = readonly [number, number, number, number]
const props = defineProps<{ folds: readonly Fold[]; ticks: readonly Stroke[]; viewport: Viewport; unit: Unit }>()

const say = (mm: number) => formatLength(mm, props.unit, false)
const real = computed(() => props.folds.filter((f) => f.folds && !f.inner))
function words(fold: Fold): string {
  if (!fold.axis) return called(fold.name)
  const [low, high, middle] = fold.axis === 'x' ? [t('left'), t('right'), t('centre')] : [t('head'), t('foot'), t('middle')]
  // many folds: each one's place from the left or head, the rest is in the scoring table
  if (real.value.length > 2) return `${called(fold.name)}  ${say(fold.from_left)}`
  if (fold.apart > 0) return `${called(fold.name)}  ${say(fold.from_left)} ${low} · ${say(fold.apart)} ${t('spine')} · ${say(fold.from_right)} ${high}`
  return `${called(fold.name)}  ${say(fold.from_left)} ${low} · ${say(fold.from_right)} ${high} · ${say(fold.from_centre)} ${middle}`
}
const screen = (s: Stroke) => ({
  x1: props.viewport.toX(s[0]),
  y1: props.viewport.toY(s[1]),
  x2: props.viewport.toX(s[2]),
  y2: props.viewport.toY(s[3]),
})
const length = (s: Stroke) => Math.hypot(s[2] - s[0], s[3] - s[1])

/** px at the right, where the tools of the view stand. */
const TOOLS = 246
/** Tags beside their folds, those that would lie over each other one below the other. */
const tags = computed(() => {
  const { toX, toY, view } = props.viewport
  const found: { fold: Fold; text: string; x: number; y: number; width: number }[] = []
  for (const fold of real.value) {
    const text = words(fold)
    const width = text.length * 6.65 + 14
    let x = 30
    let y = 30
    if (fold.axis === 'x') x = Math.max(30, Math.min(toX(fold.at) - width / 2, view.width - width - TOOLS))
    else if (fold.axis === 'y') y = toY(fold.at) + 6
    else if (fold.spans[0]) {
      const s = screen(fold.spans[0].stroke)
      x = (s.x1 + s.x2) / 2 + 8
      y = (s.y1 + s.y2) / 2 - 9
    }
    const clashes = () => found.some((t) => Math.abs(t.y - y) < 20 && x < t.x + t.width + 4 && t.x < x + width + 4)
    for (let tries = 0; tries < 6 && clashes(); tries += 1) y += 22
    found.push({ fold, text, x, y, width })
  }
  return found
})
const SEEN_INSIDE: Record<string, string> = { mountain: 'valley', valley: 'mountain' }
/** How it is drawn: a crease that points at the viewer on one side points away on the other. */
function kind(fold: Fold, direction: string) {
  if (fold.made !== 'score') return fold.made
  return props.viewport.view.inside ? (SEEN_INSIDE[direction] ?? direction) : direction
}
</script>

<template>
  <g class="folds">
    <g v-for="fold in folds" :key="fold.name" :class="{ idle: !fold.folds }">
      <template v-if="fold.folds && !fold.inner">
        <line v-if="fold.axis === 'x'" class="axis" :x1="viewport.toX(fold.at)" :x2="viewport.toX(fold.at)" y1="54" :y2="viewport.view.height" />
        <line v-else-if="fold.axis === 'y'" class="axis" :y1="viewport.toY(fold.at)" :y2="viewport.toY(fold.at)" x1="24" :x2="viewport.view.width" />
      </template>
      <template v-for="(s, i) in fold.spans" :key="i">
        <line v-if="fold.scores.length <= fold.spans.length" class="span" :class="kind(fold, s.direction)" v-bind="screen(s.stroke)">
          <title>{{ $t('{name}: {direction} as seen from outside, {stroke}', { name: called(fold.name), direction: called(s.direction), stroke: say(length(s.stroke)) }) }}</title>
        </line>
        <text
          v-if="fold.spans.length > 1 && fold.folds"
          class="length"
          data-yields="hide"
          :x="(screen(s.stroke).x1 + screen(s.stroke).x2) / 2 + (fold.axis === 'y' ? 0 : 8)"
          :y="(screen(s.stroke).y1 + screen(s.stroke).y2) / 2 - (fold.axis === 'y' ? 7 : -4)"
          :text-anchor="fold.axis === 'y' ? 'middle' : 'start'"
        >
          {{ say(length(s.stroke)) }}
        </text>
      </template>
      <template v-if="fold.scores.length > fold.spans.length">
        <line v-for="(s, i) in fold.scores" :key="`d${i}`" class="span" :class="kind(fold, fold.direction)" v-bind="screen(s)" />
      </template>
    </g>
    <line v-for="(s, i) in ticks" :key="`t${i}`" class="tick" v-bind="screen(s)"><title>{{ $t('Mark for scoring by hand, on the waste') }}</title></line>
    <g v-for="tag in tags" :key="tag.fold.name" :transform="`translate(${tag.x} ${tag.y})`">
      <rect class="tag" :width="tag.width" height="19" rx="4" />
      <text class="text" x="7" y="13.5">{{ tag.text }}</text>
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
.idle .span {
  stroke-width: 1.1;
}
.mountain {
  stroke-dasharray: 11 3 2 3;
}
.valley {
  stroke-dasharray: 6 4;
}
.span.perforate {
  stroke-width: 3;
  stroke-dasharray: 4 2.5;
}
.none {
  stroke-width: 1.2;
  stroke-dasharray: 2 3;
}
.tick {
  stroke: var(--line-fold);
  stroke-width: 1.3;
}
.length {
  font: 600 var(--size-figure) var(--figures);
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
  font: var(--size-figure) var(--figures);
  fill: var(--line-fold);
  white-space: pre;
}
</style>
