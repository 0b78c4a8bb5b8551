/** Where something that lies over the flat view covers the least of it: neither the piece, nor what is in hand, nor figures. */
import { onBeforeUnmount, ref, watch, type Ref } from 'vue'

export interface Spot {
  left: number
  top: number
  width: number
  height: number
}

const PAUSE_MS = 140
/** Points across and down at which it is looked whether there is paper. */
const ACROSS = 8
const DOWN = 5
/** What covering a figure, and something to drag, counts, in points of paper. */
const FIGURE = 2
const HANDLE = 6

/** How much of the drawing a place covers: points of paper, figures, handles. */
export function covered(spot: Spot, paper: (x: number, y: number) => boolean, figures: readonly DOMRect[], handles: readonly DOMRect[]): number {
  let found = 0
  for (let i = 0; i < ACROSS; i++)
    for (let j = 0; j < DOWN; j++)
      if (paper(spot.left + (spot.width * (i + 0.5)) / ACROSS, spot.top + (spot.height * (j + 0.5)) / DOWN)) found += 1
  const meets = (r: DOMRect) =>
    r.right > spot.left && r.left < spot.left + spot.width && r.bottom > spot.top && r.top < spot.top + spot.height
  return found + FIGURE * figures.filter(meets).length + HANDLE * handles.filter(meets).length
}

/** The freest of the places, which are in pixels from the drawing's corner; the first of those that are alike. */
export function freest(svg: SVGSVGElement, spots: readonly Spot[]): number {
  const corner = svg.getBoundingClientRect()
  const path = svg.querySelector<SVGGeometryElement>('[data-testid=flat-path]')
  const back = path?.getScreenCTM()?.inverse()
  const paper = (x: number, y: number) => {
    if (!path || !back) return false
    return path.isPointInFill(new DOMPoint(x, y).matrixTransform(back))
  }
  const rects = (what: string) => [...svg.querySelectorAll(what)].map((e) => e.getBoundingClientRect()).filter((r) => r.width > 0)
  const [figures, handles] = [rects('text'), rects('[data-handle]')]
  const counts = spots.map((s) => covered({ ...s, left: s.left + corner.left, top: s.top + corner.top }, paper, figures, handles))
  return counts.indexOf(Math.min(...counts))
}

/** The freest place, looked for again when what it depends on has been still for a moment. */
export function useFreePlace(element: Readonly<Ref<SVGSVGElement | null>>, spots: () => readonly Spot[], changes: () => unknown) {
  const at = ref(0)
  let timer: ReturnType<typeof setTimeout> | undefined
  function look() {
    const all = spots()
    if (element.value && all.length) at.value = freest(element.value, all)
  }
  watch(
    changes,
    () => {
      clearTimeout(timer)
      timer = setTimeout(look, PAUSE_MS)
    },
    { immediate: true },
  )
  onBeforeUnmount(() => clearTimeout(timer))
  return at
}
