/**
 * Dragging something on the flat view with the pointer, or nudging it with the arrow keys: shown
 * while it moves, and done when it is let go.
 */
import { onScopeDispose, readonly, ref } from 'vue'
import type { Viewport } from '../useViewport'
import type { Figures } from './handle'

export interface Keys {
  /** -1, 0 or 1, to the right and down as they lie on the screen. */
  across: number
  down: number
  fine: boolean
  event: KeyboardEvent
}
export interface Dragged {
  viewport: () => Viewport
  preview: (figures: Figures) => void
  commit: (figures: Figures) => void
  /** It is taken hold of. */
  taken?: (event: PointerEvent) => void
  /** The figures after the pointer has gone (dx, dy) mm; `free` holds snapping off. */
  moved: (dx: number, dy: number, free: boolean, event: PointerEvent) => Figures
  /** A figure is begun to be typed while it is dragged, by (dx, dy) mm so far. */
  typed?: (begun: string, dx: number, dy: number) => void
  /** The figures after a key, null where that one does nothing. */
  nudged?: (keys: Keys) => Figures | null
  /** It has been let go. */
  ended?: () => void
}

export function useDrag(of: Dragged) {
  const dragging = ref(false)
  let latest: Figures | null = null
  let start = { x: 0, y: 0 }
  let gone = { x: 0, y: 0 }

  function down(event: PointerEvent) {
    if (event.button !== 0) return
    event.stopPropagation()
    const target = event.currentTarget as SVGElement
    target.setPointerCapture(event.pointerId)
    target.focus()
    start = { x: event.clientX, y: event.clientY }
    latest = null
    gone = { x: 0, y: 0 }
    dragging.value = true
    if (of.typed) window.addEventListener('keydown', figure, true)
    of.taken?.(event)
  }
  /** A digit ends dragging where it is, and begins the figure that is typed over it. */
  function figure(event: KeyboardEvent) {
    if (!/^[\d.,-]$/.test(event.key) || event.ctrlKey || event.metaKey) return
    event.preventDefault()
    event.stopPropagation()
    up()
    of.typed?.(event.key, gone.x, gone.y)
  }
  function move(event: PointerEvent) {
    if (!dragging.value) return
    const { alongX, alongY } = of.viewport()
    gone = { x: alongX(event.clientX - start.x), y: alongY(event.clientY - start.y) }
    latest = of.moved(gone.x, gone.y, event.altKey, event)
    of.preview(latest)
  }
  function up() {
    if (!dragging.value) return
    dragging.value = false
    window.removeEventListener('keydown', figure, true)
    done()
    of.ended?.()
  }
  function done() {
    if (latest) of.commit(latest)
    latest = null
  }
  function key(event: KeyboardEvent) {
    const across = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0
    const down = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
    if (!across && !down) return
    const figures = of.nudged?.({ across, down, fine: event.shiftKey, event })
    if (!figures) return
    latest = figures
    event.preventDefault()
    event.stopPropagation()
    of.preview(latest)
  }
  const keyUp = (event: KeyboardEvent) => event.key.startsWith('Arrow') && !dragging.value && done()
  const blur = () => !dragging.value && done()

  onScopeDispose(() => window.removeEventListener('keydown', figure, true))

  const on = {
    pointerdown: down,
    pointermove: move,
    pointerup: up,
    pointercancel: up,
    lostpointercapture: up,
    keydown: key,
    keyup: keyUp,
    blur,
  }
  return { dragging: readonly(dragging), on }
}
