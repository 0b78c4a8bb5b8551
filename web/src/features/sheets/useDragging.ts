/** Dragging a piece on its sheet: it follows the pointer, and what it would be near to is asked for. */
import { computed, ref, type Ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { LaidPiece } from './types'

export interface Dragged {
  index: number
  x: number
  y: number
}

export function useDragging(options: {
  pieces: Ref<readonly LaidPiece[]>
  /** Screen pixels to mm. */
  toSheet: (event: PointerEvent) => { x: number; y: number }
  near: (index: number, piece: LaidPiece) => Promise<Schemas['Nearness'] | null>
  drop: (index: number, piece: LaidPiece) => Promise<unknown>
}) {
  const dragged = ref<Dragged | null>(null)
  const nearness = ref<Schemas['Nearness'] | null>(null)
  let from = { x: 0, y: 0 }
  let start = { x: 0, y: 0 }
  let asking = false
  let moved = false

  function begin(event: PointerEvent, index: number) {
    const piece = options.pieces.value[index]
    if (!piece || event.button !== 0) return
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    from = options.toSheet(event)
    start = { x: piece.x, y: piece.y }
    moved = false
    dragged.value = { index, ...start }
    nearness.value = null
  }

  function move(event: PointerEvent) {
    const now = dragged.value
    if (!now || options.pieces.value[now.index]?.locked) return
    const at = options.toSheet(event)
    const next = { ...now, x: round(start.x + at.x - from.x), y: round(start.y + at.y - from.y) }
    if (next.x === now.x && next.y === now.y) return
    moved = true
    dragged.value = next
    void ask()
  }

  /** One question at a time, always about the newest place. */
  async function ask() {
    if (asking) return
    asking = true
    let about: Dragged | null = null
    while (dragged.value && dragged.value !== about) {
      about = dragged.value
      const piece = options.pieces.value[about.index]
      if (!piece) break
      const found = await options.near(about.index, { ...piece, x: about.x, y: about.y })
      if (dragged.value) nearness.value = found
    }
    asking = false
  }

  async function end() {
    const now = dragged.value
    const piece = now && options.pieces.value[now.index]
    if (now && piece && moved) await options.drop(now.index, { ...piece, x: now.x, y: now.y })
    dragged.value = null
    nearness.value = null
  }

  const isMoving = computed(() => dragged.value !== null)
  return { dragged, nearness, isMoving, begin, move, end }
}

const round = (value: number) => Math.round(value * 100) / 100
