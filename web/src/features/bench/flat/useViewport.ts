/**
 * Where the flat view looks: mm to pixels, zoomed to a point with the wheel, moved by dragging.
 * Seen from the inside, x runs from right to left.
 */
import { computed, onScopeDispose, reactive, readonly, watch, type Ref } from 'vue'

export interface Bounds {
  left: number
  head: number
  right: number
  foot: number
}
const LEAST = 0.15
const MOST = 400

export function useViewport(element: Ref<HTMLElement | SVGElement | null>) {
  const view = reactive({ x: 0, y: 0, scale: 2, width: 800, height: 500, touched: false, inside: false })

  const observer = new ResizeObserver(([entry]) => {
    if (!entry) return
    view.width = entry.contentRect.width
    view.height = entry.contentRect.height
  })
  watch(element, (now, before) => {
    if (before) observer.unobserve(before)
    if (now) observer.observe(now)
  })
  onScopeDispose(() => observer.disconnect())

  const sign = () => (view.inside ? -1 : 1)
  const toX = (mm: number) => view.x + sign() * mm * view.scale
  const toY = (mm: number) => view.y + mm * view.scale
  const fromX = (px: number) => (sign() * (px - view.x)) / view.scale
  /** A way on the screen in mm. */
  const alongX = (px: number) => (sign() * px) / view.scale
  const alongY = (px: number) => px / view.scale
  const fromY = (px: number) => (px - view.y) / view.scale

  /** Shows all of a box, with room round it for rulers and dimension lines. */
  function fit(box: Bounds, room = { left: 62, head: 66, right: 84, foot: 84 }) {
    const w = Math.max(box.right - box.left, 1)
    const h = Math.max(box.foot - box.head, 1)
    const scale = Math.min(
      (view.width - room.left - room.right) / w,
      (view.height - room.head - room.foot) / h,
    )
    view.scale = Math.min(Math.max(scale, LEAST), 12)
    const spare = (view.width - room.left - room.right - w * view.scale) / 2
    view.x = room.left + spare - sign() * (view.inside ? box.right : box.left) * view.scale
    view.y = room.head + (view.height - room.head - room.foot - h * view.scale) / 2 - box.head * view.scale
    view.touched = false
  }

  function zoomAt(px: number, py: number, factor: number) {
    const scale = Math.min(Math.max(view.scale * factor, LEAST), MOST)
    view.x = px - ((px - view.x) / view.scale) * scale
    view.y = py - ((py - view.y) / view.scale) * scale
    view.scale = scale
    view.touched = true
  }

  function pan(dx: number, dy: number) {
    view.x += dx
    view.y += dy
    view.touched = true
  }

  /** The scale at which a mm has so many pixels, about the middle of the view. */
  function zoomTo(scale: number) {
    zoomAt(view.width / 2, view.height / 2, scale / view.scale)
  }

  /** The other side of the sheet, turned over about the middle of the view. */
  function turnOver() {
    const middle = fromX(view.width / 2)
    view.inside = !view.inside
    view.x = view.width / 2 - sign() * middle * view.scale
  }

  const transform = computed(() => `translate(${view.x} ${view.y}) scale(${sign() * view.scale} ${view.scale})`)
  return {
    view: readonly(view),
    toX,
    toY,
    fromX,
    fromY,
    alongX,
    alongY,
    fit,
    zoomAt,
    zoomTo,
    pan,
    turnOver,
    transform,
  }
}

export type Viewport = ReturnType<typeof useViewport>
