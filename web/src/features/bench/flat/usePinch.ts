/** Two fingers on the flat view: zoom about the place between them, and move with it. */
import type { Viewport } from './useViewport'

interface Finger {
  x: number
  y: number
}

export function usePinch(viewport: Viewport) {
  const fingers = new Map<number, Finger>()
  const middle = () => {
    const [a, b] = [...fingers.values()] as [Finger, Finger]
    return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, apart: Math.hypot(a.x - b.x, a.y - b.y) }
  }

  function down(event: PointerEvent) {
    if (event.pointerType === 'touch') fingers.set(event.pointerId, { x: event.offsetX, y: event.offsetY })
  }
  /** Whether two fingers are at it. */
  function move(event: PointerEvent): boolean {
    if (!fingers.has(event.pointerId) || fingers.size !== 2) {
      if (fingers.has(event.pointerId)) fingers.set(event.pointerId, { x: event.offsetX, y: event.offsetY })
      return false
    }
    const before = middle()
    fingers.set(event.pointerId, { x: event.offsetX, y: event.offsetY })
    const now = middle()
    viewport.pan(now.x - before.x, now.y - before.y)
    if (before.apart > 1) viewport.zoomAt(now.x, now.y, now.apart / before.apart)
    return true
  }
  function up(event: PointerEvent) {
    fingers.delete(event.pointerId)
  }
  return { down, move, up }
}
