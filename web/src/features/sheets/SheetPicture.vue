<script setup lang="ts">
/** A sheet to scale with its pieces in their papers' colours. */
import { computed } from 'vue'
import { fittedName } from './formats'
import type { LaidPiece, LaidSheet, Layout } from './types'

const props = defineProps<{
  sheet: LaidSheet
  parts: Layout['parts']
  /** Where a piece is while it is dragged. */
  dragged?: { index: number; x: number; y: number } | null
  wrong?: boolean
  chosen?: number | null
  names?: boolean
}>()
const emit = defineEmits<{ press: [event: PointerEvent, index: number]; drag: [event: PointerEvent]; drop: [] }>()

const MARGIN = 2
const box = computed(
  () => `${-MARGIN} ${-MARGIN} ${props.sheet.width + 2 * MARGIN} ${props.sheet.height + 2 * MARGIN}`,
)
function place(piece: LaidPiece, index: number) {
  const at = props.dragged?.index === index ? props.dragged : piece
  return `translate(${at.x + (piece.dx ?? 0)} ${at.y + (piece.dy ?? 0)}) rotate(${piece.turn})${piece.flipped ? ' scale(-1 1)' : ''}`
}
/** Where the piece's name stands: its own place for it, turned with it. */
function middle(piece: LaidPiece, index: number) {
  const at = props.dragged?.index === index ? props.dragged : piece
  const own = props.parts[piece.part]!
  const turn = (piece.turn * Math.PI) / 180
  const x = piece.flipped ? -own.label_x : own.label_x
  return {
    x: at.x + (piece.dx ?? 0) + x * Math.cos(turn) - own.label_y * Math.sin(turn),
    y: at.y + (piece.dy ?? 0) + x * Math.sin(turn) + own.label_y * Math.cos(turn),
  }
}
const part = (piece: LaidPiece) => props.parts[piece.part]!
/** By the sheet's pieces: the name, and where its middle is so that it stays within the piece's box. */
const labels = computed(() =>
  props.sheet.pieces.map((piece, index) => {
    const at = props.dragged?.index === index ? props.dragged : piece
    const own = middle(piece, index)
    const width = piece.width ?? 20
    const name = fittedName(part(piece).name, width)
    const x = Math.min(Math.max(own.x, at.x + name.half), at.x + width - name.half)
    return { ...name, x, y: own.y }
  }),
)
</script>

<template>
  <svg class="sheet" :viewBox="box" @pointermove="emit('drag', $event)" @pointerup="emit('drop')" @pointercancel="emit('drop')">
    <rect class="paper" :width="sheet.width" :height="sheet.height" />
    <rect class="reach" :x="sheet.edge" :y="sheet.edge" :width="sheet.width - 2 * sheet.edge" :height="sheet.height - 2 * sheet.edge" />
    <path v-for="(d, i) in sheet.taken" :key="`t${i}`" class="taken" :d="d" />
    <circle v-for="([cx, cy], i) in sheet.holes" :key="`h${i}`" class="hole" :cx="cx" :cy="cy" r="1.5" />
    <g
      v-for="(piece, i) in sheet.pieces"
      :key="i"
      class="piece"
      :class="{ chosen: chosen === i, locked: piece.locked, wrong: wrong && dragged?.index === i }"
      :data-piece="i"
      @pointerdown="emit('press', $event, i)"
    >
      <path :d="part(piece).d" :transform="place(piece, i)" :fill="piece.flipped ? part(piece).inside : part(piece).outside" fill-rule="evenodd" />
      <template v-if="names">
        <text v-if="(piece.width ?? 0) > 16" :x="labels[i]!.x" :y="labels[i]!.y" :font-size="labels[i]!.size">{{ labels[i]!.text }}<title>{{ part(piece).name }}</title></text>
        <text v-if="piece.locked" class="pin" :x="labels[i]!.x" :y="labels[i]!.y + labels[i]!.size * 1.3" :font-size="labels[i]!.size * 0.8">{{ $t('locked') }}</text>
      </template>
    </g>
  </svg>
</template>

<style scoped>
.sheet {
  display: block;
  touch-action: none;
}
.paper {
  fill: #fff;
  stroke: var(--border-strong);
  stroke-width: 0.6;
}
.reach {
  fill: none;
  stroke: var(--border-strong);
  stroke-width: 0.35;
  stroke-dasharray: 2 2;
}
.taken {
  fill: var(--paper-3);
  stroke: var(--ink-3);
  stroke-width: 0.3;
}
.hole {
  fill: none;
  stroke: var(--ink-3);
  stroke-width: 0.4;
}
.piece path {
  stroke: var(--ink-1);
  stroke-width: 0.35;
}
.piece.chosen path {
  stroke: var(--accent);
  stroke-width: 1;
}
.piece.wrong path {
  stroke: var(--error);
  stroke-width: 1.2;
}
text {
  text-anchor: middle;
  dominant-baseline: middle;
  font-weight: 600;
  fill: var(--ink-0);
  stroke: #ffffffb8;
  stroke-width: 0.12em;
  paint-order: stroke;
  pointer-events: none;
}
</style>
