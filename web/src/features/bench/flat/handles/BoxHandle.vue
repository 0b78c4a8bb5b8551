<script setup lang="ts">
/**
 * A thing in hand that is moved both ways, with its gaps, each of which can be typed over. It stands
 * where the values say at once, wherever the computed picture still is.
 */
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Unit } from '@/shared/api/document'
import { formatLength, nudge } from '@/shared/units/lengths'
import { capital, t } from '@/shared/words'
import type { Typed } from '../typed'
import type { Viewport } from '../useViewport'
import GapFigures, { FROM } from './GapFigures.vue'
import { bounded, figureAt, tidy, type BoxHandle, type Figures, type Moved } from './handle'
import HandleBubble from './HandleBubble.vue'
import SizeGrips from './SizeGrips.vue'
import { byHand, snapBox, type Snap } from './snapping'
import SnapLines from './SnapLines.vue'
import { useDrag } from './useDrag'

defineOptions({ inheritAttrs: false })
const props = defineProps<{
  handle: BoxHandle
  values: unknown
  guides: readonly Schemas['Guide'][]
  /** The box that its gaps are measured to. */
  within: readonly number[]
  viewport: Viewport
  unit: Unit
  effect?: Schemas['EffectView'] | null
}>()
const emit = defineEmits<{
  preview: [figures: Figures]
  commit: [figures: Figures]
  type: [typed: Typed]
  /** Where it is dragged, in mm; null when it is let go. */
  dragged: [place: { x: number; y: number } | null]
}>()

const REACH_PX = 7
const ARROWS: Record<string, string> = { dx: '→', dy: '↓' }
const snaps = ref<Snap[]>([])
let from = { x: 0, y: 0 }

const now = (moved: Moved) => figureAt(props.values, moved.field, moved.value)
const x = computed(() => now(props.handle.across))
const y = computed(() => now(props.handle.down))
/** How far the values have run ahead of the computed picture. */
const ahead = computed(() => {
  const { across, down } = props.handle
  return { x: (x.value - across.value) / across.factor, y: (y.value - down.value) / down.factor }
})
const box = computed(() => {
  const [left, head, right, foot] = props.handle.box
  const { x: dx, y: dy } = ahead.value
  return { left: left + dx, head: head + dy, right: right + dx, foot: foot + dy }
})
const px = computed(() => {
  const { toX, toY } = props.viewport
  const b = box.value
  const [left, right] = [toX(b.left), toX(b.right)].sort((a, b_) => a - b_) as [number, number]
  const [head, foot] = [toY(b.head), toY(b.foot)]
  return { left, head, right, foot, cx: (left + right) / 2, cy: (head + foot) / 2 }
})
const label = computed(() => {
  const told = (moved: Moved, value: number) => `${ARROWS[moved.field] ?? moved.field} ${formatLength(value, props.unit)}`
  return `${told(props.handle.across, x.value)}   ${told(props.handle.down, y.value)}`
})
const set = (figureX: number, figureY: number): Figures => ({
  [props.handle.across.field]: bounded(figureX, props.handle.across.least),
  [props.handle.down.field]: bounded(figureY, props.handle.down.least),
})

const { dragging, on } = useDrag({
  viewport: () => props.viewport,
  preview: (figures) => emit('preview', figures),
  commit: (figures) => emit('commit', figures),
  taken: () => (from = { x: x.value, y: y.value }),
  moved(dx, dy, free) {
    const { across, down, box: computed_ } = props.handle
    const reach = free ? 0 : REACH_PX / props.viewport.view.scale
    const [sx, sy] = [(from.x - across.value) / across.factor + dx, (from.y - down.value) / down.factor + dy]
    const [left, head, right, foot] = computed_
    const at = { left: left + sx, right: right + sx, head: head + sy, foot: foot + sy }
    const [hitX, hitY] = free ? [null, null] : snapBox(at, props.guides, props.within, reach)
    snaps.value = [hitX, hitY].filter((s) => s !== null)
    emit('dragged', { x: (box.value.left + box.value.right) / 2, y: (box.value.head + box.value.foot) / 2 })
    const clean = (figure: number, hit: Snap | null) => (hit ? tidy(figure) : byHand(figure))
    return set(
      clean(from.x + (dx + (hitX?.by ?? 0)) * across.factor, hitX),
      clean(from.y + (dy + (hitY?.by ?? 0)) * down.factor, hitY),
    )
  },
  typed(begun, dx, dy) {
    const level = Math.abs(dx) >= Math.abs(dy)
    const moved = level ? props.handle.across : props.handle.down
    const take = (mm: number) => emit('commit', { [moved.field]: bounded(mm, moved.least) })
    const label_ = `${props.handle.word}, ${level ? t('across') : t('down')}`
    emit('type', { x: px.value.cx, y: px.value.head - 20, value: now(moved), label: label_, take, begun })
  },
  nudged({ across, down, fine }) {
    const by = nudge(props.unit, fine)
    const turned = props.viewport.view.inside ? -1 : 1
    const { across: moved, down: fallen } = props.handle
    return set(tidy(x.value + across * turned * by * moved.factor), tidy(y.value + down * by * fallen.factor))
  },
  ended() {
    snaps.value = []
    emit('dragged', null)
  },
})

/** A gap typed over moves the thing to where it has that gap. */
function typeGap(gap: { axis: 'x' | 'y'; side: string; x: number; y: number; mm: number; sign: number }) {
  const moved = gap.axis === 'x' ? props.handle.across : props.handle.down
  const take = (mm: number) =>
    emit('commit', { [moved.field]: tidy(now(moved) + gap.sign * (mm - gap.mm) * moved.factor) })
  emit('type', { x: gap.x, y: gap.y, value: gap.mm, label: capital(FROM[gap.side as keyof typeof FROM]), take })
}
</script>

<template>
  <g>
    <SnapLines :snaps="snaps" :viewport="viewport" :unit="unit" :origin="within" />
    <GapFigures :box="box" :px="px" :within="within" :aside="handle.turn === null ? 0 : 34" :viewport="viewport" :unit="unit" @type="typeGap" />
    <g
      class="handle box"
      :class="{ dragging }"
      tabindex="0"
      role="slider"
      :aria-label="$t('{word}, move with the arrow keys', { word: handle.word })"
      :aria-valuetext="label"
      :aria-valuenow="x"
      :data-handle="handle.across.field"
      v-on="on"
    >
      <path class="outline" :d="handle.outline" :transform="`${viewport.transform.value} translate(${ahead.x} ${ahead.y})`" />
      <rect class="frame" :x="px.left" :y="px.head" :width="Math.max(px.right - px.left, 1)" :height="Math.max(px.foot - px.head, 1)" />
      <path class="cross" :d="`M${px.cx - 7} ${px.cy}h14m-7 -7v14`" />
    </g>
    <HandleBubble :x="px.right + 8" :left="px.left" :y="px.head - 14" :label="label" :viewport="viewport" :unit="unit" :effect="effect" />
    <SizeGrips
      v-if="handle.sizing || handle.turn !== null"
      :handle="handle"
      :values="values"
      :guides="guides"
      :within="within"
      :viewport="viewport"
      :unit="unit"
      @preview="(v) => emit('preview', v)"
      @commit="(v) => emit('commit', v)"
      @type="(t) => emit('type', t)"
    />
  </g>
</template>

<style scoped src="./handle.css"></style>
