/**
 * Words and figures that yield: those marked `data-yields` step aside from all other words, figures and
 * things in hand, to the nearest place that is free; what finds none is not shown ("hide") or stays.
 */
import { onBeforeUnmount, watch, type Ref } from 'vue'

export interface Rect {
  left: number
  top: number
  right: number
  bottom: number
}
const PAUSE_MS = 60
const BESIDE = 2
/** Steps in lines up and down, and in widths to the sides, nearest first. */
const ASIDE: readonly (readonly [number, number])[] = [
  [0, 0], [0, -1.2], [0, 1.2], [0, -2.4], [0, 2.4], [-1, 0], [1, 0], [0, 3.6], [0, -3.6], [-1, 2.4], [1, 2.4], [-1, -2.4], [1, -2.4],
]

const meets = (a: Rect, b: Rect) =>
  a.left < b.right + BESIDE && b.left < a.right + BESIDE && a.top < b.bottom + BESIDE && b.top < a.bottom + BESIDE

/** How far a label goes so that it meets none of the others; null where no place is free. */
export function aside(label: Rect, others: readonly Rect[]): [number, number] | null {
  const [width, height] = [label.right - label.left, label.bottom - label.top]
  for (const [across, down] of ASIDE) {
    const [dx, dy] = [across * (width + 4), down * height]
    const there = { left: label.left + dx, right: label.right + dx, top: label.top + dy, bottom: label.bottom + dy }
    if (!others.some((o) => meets(there, o))) return [dx, dy]
  }
  return null
}

function clear(svg: SVGSVGElement) {
  const labels = [...svg.querySelectorAll<SVGElement>('[data-yields]')]
  for (const label of labels) {
    label.style.translate = ''
    label.style.visibility = ''
  }
  const fixed: Rect[] = [...svg.querySelectorAll('text:not([data-yields]), [data-handle] .frame, [data-handle] .grip, .tag')]
    .map((e) => e.getBoundingClientRect())
    .filter((r) => r.width > 0)
  for (const label of labels) {
    const rect = label.getBoundingClientRect()
    // a thing that a name stands on all round cannot be stepped aside from
    const others = fixed.filter((r) => !(r.left < rect.left - 90 && r.right > rect.right + 90 && r.top < rect.top - 60 && r.bottom > rect.bottom + 60))
    const by = aside(rect, others)
    if (by && (by[0] || by[1])) label.style.translate = `${by[0]}px ${by[1]}px`
    if (!by && label.dataset['yields'] === 'hide') label.style.visibility = 'hidden'
    const [dx, dy] = by ?? [0, 0]
    if (by || label.dataset['yields'] !== 'hide') {
      fixed.push({ left: rect.left + dx, right: rect.right + dx, top: rect.top + dy, bottom: rect.bottom + dy })
    }
  }
}

/** Looked for again when what it depends on has been still for a moment. */
export function useClearLabels(element: Readonly<Ref<SVGSVGElement | null>>, changes: () => unknown) {
  let timer: ReturnType<typeof setTimeout> | undefined
  watch(
    changes,
    () => {
      clearTimeout(timer)
      timer = setTimeout(() => element.value && clear(element.value), PAUSE_MS)
    },
    { immediate: true, deep: false },
  )
  onBeforeUnmount(() => clearTimeout(timer))
}
