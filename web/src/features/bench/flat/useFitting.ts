/** What of the flat view is in sight: all of the piece, what is in hand, or its actual size. */
import { computed, nextTick, ref, watch } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { rulerScale } from './rulerScale'
import type { Bounds, Viewport } from './useViewport'

type Box = readonly [number, number, number, number]

/** The bounds of some boxes together. */
function around(boxes: readonly Box[]): Bounds {
  const side = (i: 0 | 1 | 2 | 3, pick: (...v: number[]) => number) => pick(...boxes.map((b) => b[i]))
  return { left: side(0, Math.min), head: side(1, Math.min), right: side(2, Math.max), foot: side(3, Math.max) }
}

export function useFitting(viewport: Viewport, flat: () => Schemas['FlatView'], step: () => string | undefined) {
  /** The piece, and the parts that the step in hand has cut off. */
  const whole = computed(() => around([flat().box, ...flat().parts.map((p) => p.box)]))
  const measuring = ref(false)
  const fit = () => viewport.fit(whole.value)

  /** The other side of the sheet. */
  function turnOver() {
    const { touched } = viewport.view
    viewport.turnOver()
    if (!touched) fit()
  }

  /** What is in hand, with some room round it. */
  function near() {
    const boxes = flat().handles.flatMap((h) => (h.shape === 'box' ? [h.box] : []))
    if (!boxes.length) return fit()
    viewport.fit(around(boxes), { left: 110, head: 120, right: 130, foot: 110 })
    viewport.pan(0, 0)
  }

  /** At its actual size, after the screen has been measured. */
  function actual() {
    if (rulerScale.value) viewport.zoomTo(rulerScale.value)
    else measuring.value = true
  }

  function isWellSeen(width: number, height: number): boolean {
    const { left, head, right, foot } = whole.value
    const { toX, toY } = viewport
    const inside = toX(left) > 24 && toY(head) > 24 && toX(right) < width - 60 && toY(foot) < height - 50
    const large = (toX(right) - toX(left)) / width > 0.45 || (toY(foot) - toY(head)) / height > 0.45
    return inside && large
  }

  // the first picture, and every other size of the window, unless somebody has moved the view
  let fitted = ''
  watch(
    () => [viewport.view.width, viewport.view.height, Object.values(whole.value).join(), step()] as const,
    async ([width, height, bounds, stepId]) => {
      if (!bounds || viewport.view.touched) return
      const frame = `${width}x${height}:${stepId}`
      if (frame === fitted && isWellSeen(width, height)) return
      fitted = frame
      await nextTick()
      fit()
    },
    { immediate: true },
  )

  return { fit, near, turnOver, actual, measuring }
}
