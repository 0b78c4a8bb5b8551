/** Where the flat view looks: mm to pixels, zoomed to a point with the wheel, moved by dragging. */
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
  const view = reactive({ x: 0, y: 0, scale: 2, width: 800, height: 500, touched: false })

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

  const toX = (mm: number) => view.x + mm * view.scale
  const toY = (mm: number) => view.y + mm * view.scale
  const fromX = (px: number) => (px - view.x) / view.scale
  const fromY = (px: number) => (px - view.y) / view.scale

  /** Shows all of a box, with room round it for rulers and dimension lines. */
  function fit(box: Bounds, room = { left: 62, head: 66, right: 84, foot: 66 }) {
    const w = Math.max(box.right - box.left, 1)
    const h = Math.max(box.foot - box.head, 1)
    const scale = Math.min(
      (view.width - room.left - room.right) / w,
      (view.height - room.head - room.foot) / h,
    )
    view.scale = Math.min(Math.max(scale, LEAST), 12)
    view.x = room.left + (view.width - room.left - room.right - w * view.scale) / 2 - box.left * view.scale
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

  const transform = computed(() => `translate(${view.x} ${view.y}) scale(${view.scale})`)
  return { view: readonly(view), toX, toY, fromX, fromY, fit, zoomAt, pan, transform }
}

export type Viewport = ReturnType<typeof useViewport>
