<script setup lang="ts">
/** The open card with all that lies on it, from outside or inside: layers are picked and moved here. */
import { computed, ref, shallowRef, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { DesignData, Unit, Values } from '@/shared/api/document'
import PaperPatterns from '@/shared/components/PaperPatterns.vue'
import { formatLength } from '@/shared/units/lengths'
import { t } from '@/shared/words'
import { movedBy, type Shifts } from '../commands/lineUp'
import { snapBox, type Snap } from '../flat/handles/snapping'
import LineUpChoice from '../panes/LineUpChoice.vue'

type Sheet = Schemas['AssembledSheet']
type Guide = Schemas['Guide']
const REACH_PX = 7
const props = defineProps<{ document: DesignData; seen: Schemas['AssembledView']; side: 'outside' | 'inside'; chosen: string; unit: Unit }>()
const emit = defineEmits<{
  choose: [piece: string]
  /** Values of steps, each with its piece. */
  commit: [moves: [piece: string, step: string, values: Values][]]
}>()
const element = ref<SVGSVGElement | null>(null)
const view = computed(() => props.seen[props.side])
const frame = computed(() => {
  const [left, head, right, foot] = view.value.box
  const margin = Math.max(right - left, foot - head) * 0.07
  return `${left - margin} ${head - margin} ${right - left + 2 * margin} ${foot - head + 2 * margin}`
})
/** Its paper's pattern, where the face that has it is seen; else its colour. */
function fill(sheet: Sheet): string {
  const piece = props.document.pieces.find((p) => p.id === sheet.piece)
  const n = props.document.papers.findIndex((p) => p.id === piece?.paper)
  const paper = props.document.papers[n]
  return paper && paper.pattern !== 'none' && sheet.fill === paper.outside ? `url(#assembled-${n})` : sheet.fill
}
const own = computed(() => view.value.sheets.find((s) => s.piece === props.chosen))

/** A layer that is dragged: from where, and how far so far; it stays there until it is computed. */
const dragged = ref<{ sheet: Sheet; x: number; y: number; right: number; down: number; held: boolean } | null>(null)
watch(
  () => props.seen,
  () => {
    if (!dragged.value?.held) dragged.value = null
  },
)
const shift = (piece: string) => {
  const d = dragged.value
  return d?.sheet.piece === piece ? `translate(${d.right} ${d.down})` : undefined
}

function place(event: PointerEvent): [number, number] {
  const matrix = element.value?.getScreenCTM()?.inverse()
  if (!matrix) return [0, 0]
  const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix)
  return [p.x, p.y]
}
function down(event: PointerEvent, sheet: Sheet) {
  if (event.button !== 0) return
  emit('choose', sheet.piece)
  if (!sheet.moves) return
  const [x, y] = place(event)
  dragged.value = { sheet, x, y, right: 0, down: 0, held: true }
  element.value?.setPointerCapture(event.pointerId)
}
const snaps = shallowRef<readonly Snap[]>([])
/** Lines of the base, and edges and middles of what lies on it, but for the layer itself. */
function guidesFor(sheet: Sheet): Guide[] {
  const others = view.value.sheets.filter((s) => s.piece !== sheet.piece && s.height >= 0)
  const of = (s: Sheet): Guide[] => {
    const [left, head, right, foot] = s.box
    const at = (axis: 'x' | 'y', at_: number, word: string): Guide => ({ axis, at: at_, word: `${s.name} ${word}`, edge: '' })
    return [
      at('x', left, t('left')), at('x', (left + right) / 2, t('centre')), at('x', right, t('right')),
      at('y', head, t('head')), at('y', (head + foot) / 2, t('middle')), at('y', foot, t('foot')),
    ]
  }
  return [...view.value.guides, ...others.flatMap(of)]
}
/** mm of a pixel. */
const pixel = () => 1 / (element.value?.getScreenCTM()?.a || 1)
function move(event: PointerEvent) {
  const now = dragged.value
  if (!now?.held) return
  const [x, y] = place(event)
  if (Math.hypot(now.right, now.down) === 0 && Math.hypot(x - now.x, y - now.y) < 0.5) return
  const [right, down_] = [x - now.x, y - now.y]
  const [l, h, r, f] = now.sheet.box
  const at = { left: l + right, right: r + right, head: h + down_, foot: f + down_ }
  const [hitX, hitY] = event.altKey ? [null, null] : snapBox(at, guidesFor(now.sheet), view.value.box, REACH_PX * pixel())
  snaps.value = [hitX, hitY].filter((s) => s !== null)
  now.right = hitX ? right + hitX.by : tenths(right)
  now.down = hitY ? down_ + hitY.by : tenths(down_)
}
function up() {
  const now = dragged.value
  if (!now?.held) return
  now.held = false
  const round = snaps.value.length ? undefined : tenths
  snaps.value = []
  if (Math.hypot(now.right, now.down) === 0 || !now.sheet.moves) dragged.value = null
  else emit('commit', [[now.sheet.piece, now.sheet.moves.step, movedBy(movesOf(now.sheet), now.right, now.down, round)]])
}
/** How a layer moves, from the values as they are now: the picture may be of before the last press. */
function movesOf(sheet: Sheet): Schemas['MovesView'] {
  const steps = props.document.pieces.find((p) => p.id === sheet.piece)?.steps ?? []
  const step = steps.find((s) => s.id === sheet.moves!.step) as Values | undefined
  const { across, down: downwards } = sheet.moves!
  return { ...sheet.moves!, dx: Number(step?.[across] ?? sheet.moves!.dx), dy: Number(step?.[downwards] ?? sheet.moves!.dy) }
}
const tenths = (v: number) => Math.round(v * 10) / 10
const liningUp = ref(false)
/** The layers that can be moved, as the card is looked at. */
const movable = computed(() => view.value.sheets.filter((s) => s.moves).map((s) => ({ key: s.piece, title: s.name, box: s.box })))
function lineUp(shifts: Shifts) {
  liningUp.value = false
  const moved = view.value.sheets.filter((s) => s.moves && shifts[s.piece])
  emit('commit', moved.map((s) => [s.piece, s.moves!.step, movedBy(movesOf(s), ...shifts[s.piece]!)]))
}
const BY: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }
function key(event: KeyboardEvent) {
  const by = BY[event.key]
  if (!by || !own.value?.moves) return
  const moves = movesOf(own.value)
  event.preventDefault()
  const step = event.shiftKey ? 10 : event.altKey ? 0.1 : 1
  emit('commit', [[props.chosen, moves.step, movedBy(moves, by[0] * step, by[1] * step, tenths)]])
}
const told = computed(() => {
  const s = own.value
  if (!s) return t('A press picks a piece; one that is placed by values can be dragged.')
  const [left, head, right, foot] = s.box
  const size = `${formatLength(right - left, props.unit)} x ${formatLength(foot - head, props.unit)}`
  const high = s.height > 0 ? t(', {height} above the base', { height: formatLength(s.height, props.unit) }) : ''
  return `${s.name}: ${size}${high}${s.moves ? t('. Drag it, or use the arrow keys.') : ''}`
})
</script>

<template>
  <div class="assembled" data-testid="assembled-view">
    <svg
      ref="element"
      :viewBox="frame"
      tabindex="0"
      role="group"
      :aria-label="side === 'outside' ? $t('The open card from outside, with all that lies on it') : $t('The open card from inside, with all that lies on it')"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
      @keydown="key"
    >
      <PaperPatterns :papers="document.papers" name="assembled" />
      <path
        v-for="s in view.sheets"
        :key="s.piece"
        :data-piece="s.piece"
        :d="s.path"
        :fill="fill(s)"
        :fill-opacity="1 - s.light"
        fill-rule="evenodd"
        :class="{ movable: s.moves, raised: s.height > 0 }"
        :transform="shift(s.piece)"
        @pointerdown="(e) => down(e, s)"
      >
        <title>{{ s.name }}</title>
      </path>
      <g v-for="(s, i) in snaps" :key="`snap-${i}`" class="snap" :style="{ fontSize: `${11 * pixel()}px` }">
        <template v-if="s.guide.axis === 'x'">
          <line :x1="s.guide.at" :x2="s.guide.at" :y1="view.box[1]" :y2="view.box[3]" />
          <text :x="s.guide.at" :y="view.box[3] - pixel()" dx="0.4em">{{ s.guide.word }}</text>
        </template>
        <template v-else>
          <line :y1="s.guide.at" :y2="s.guide.at" :x1="view.box[0]" :x2="view.box[2]" />
          <text :x="view.box[0]" :y="s.guide.at" dx="0.4em" dy="-0.3em">{{ s.guide.word }}</text>
        </template>
      </g>
      <path v-if="own" class="own" :class="{ beneath: own.height < 0 }" :d="own.path" :transform="shift(own.piece)" />
    </svg>
    <p class="told soft" role="status">{{ told }}</p>
    <ElButton v-if="own?.moves && movable.length > 1" class="line-up" size="small" @click="liningUp = true">{{ $t('Line up with others …') }}</ElButton>
    <LineUpChoice v-if="liningUp" :things="movable" :own="chosen" :unit="unit" @close="liningUp = false" @take="lineUp" />
  </div>
</template>

<style scoped>
.assembled {
  position: relative;
  min-height: 0;
  background: var(--paper-1);
}
svg {
  position: absolute;
  inset: 0 0 26px;
  width: 100%;
  height: calc(100% - 26px);
  touch-action: none;
}
svg:focus-visible {
  outline: 2px solid var(--accent);
  outline-offset: -2px;
}
path {
  stroke: var(--ink-1);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
  stroke-linejoin: round;
}
.snap line {
  stroke: var(--line-guide);
  vector-effect: non-scaling-stroke;
}
.snap text {
  font-family: var(--figures);
  fill: var(--line-guide);
  paint-order: stroke;
  stroke: var(--surface);
  stroke-width: 0.3em;
}
.raised {
  filter: drop-shadow(0.4px 0.6px 0.5px rgb(60 45 20 / 35%));
}
.movable {
  cursor: move;
}
.own {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2.5px;
  pointer-events: none;
}
.beneath {
  stroke-dasharray: 6 4;
  stroke-width: 1.5px;
}
.line-up {
  position: absolute;
  right: 10px;
  top: 10px;
}
.told {
  position: absolute;
  inset: auto 12px 5px;
  font-size: var(--size-small);
}
</style>
