/**
 * A drawing of many colours as layers of a few papers: colours are put together by nearness, those that differ least and
 * cover least first. Pure functions.
 */
import type { Draft, Found } from './grouping'

/** Numbers of papers that are offered. */
export const PAPER_COUNTS = [4, 6, 8, 12] as const
/** A drawing of more colours is offered on papers at first. */
export const MANY_COLOURS = 20

type Lab = readonly [number, number, number]
interface Paper {
  readonly lab: Lab
  readonly area: number
  readonly colours: ReadonlySet<string>
}

/** How many colours the kept layers have. */
export const coloursOf = (drafts: readonly Draft[]) => new Set(drafts.filter((d) => d.kept).map((d) => d.colour)).size

/** The kept layers on at most `count` papers. Layers of one paper become one where none that lies between them covers
 * either; the others stay in their places in the pile, so that the picture stays the same. */
export function onPapers(drafts: readonly Draft[], found: Found, count: number): Draft[] {
  const colour = papersOf(drafts.filter((d) => d.kept), found, count)
  const pile: Draft[] = []
  for (const draft of drafts) {
    if (!draft.kept) {
      pile.push(draft)
      continue
    }
    const own = { ...draft, colour: colour.get(draft.colour) ?? draft.colour }
    const at = placeIn(pile, own, found)
    const under = pile[at]
    if (!under) pile.push(own)
    else pile[at] = { ...larger(under, own, found), shapes: [...under.shapes, ...own.shapes].sort((a, b) => a - b) }
  }
  return pile
}

/** The layer of the pile that one of the same colour can be put to: none above that one lies under it; -1 for none. */
function placeIn(pile: readonly Draft[], own: Draft, found: Found): number {
  for (let i = pile.length - 1; i >= 0; i -= 1) {
    const below = pile[i]!
    if (below.kept && below.colour === own.colour) return i
    if (below.kept && meet(below, own, found)) return -1
  }
  return -1
}

function meet(a: Draft, b: Draft, found: Found): boolean {
  const boxes = (d: Draft) => d.shapes.map((n) => found.shapes[n]!.box)
  const others = boxes(b)
  return boxes(a).some(([l, h, r, f]) => others.some(([l2, h2, r2, f2]) => l < r2 && l2 < r && h < f2 && h2 < f))
}

const areaOf = (draft: Draft, found: Found) => draft.shapes.reduce((sum, n) => sum + found.shapes[n]!.area, 0)
const larger = (a: Draft, b: Draft, found: Found) => (areaOf(a, found) >= areaOf(b, found) ? a : b)

/** By colour: that of the paper it is cut of, which is the one of its colours that covers most. */
function papersOf(drafts: readonly Draft[], found: Found, count: number): Map<string, string> {
  const areas = new Map<string, number>()
  for (const draft of drafts) areas.set(draft.colour, (areas.get(draft.colour) ?? 0) + areaOf(draft, found))
  const papers: Paper[] = [...areas].map(([colour, area]) => ({ lab: labOf(colour), area: Math.max(area, 1e-9), colours: new Set([colour]) }))
  while (papers.length > Math.max(1, count)) {
    const [i, j] = nearest(papers)
    const [a, b] = [papers[i]!, papers[j]!]
    const area = a.area + b.area
    const lab = a.lab.map((v, k) => (v * a.area + b.lab[k]! * b.area) / area) as unknown as Lab
    papers.splice(j, 1)
    papers[i] = { lab, area, colours: new Set([...a.colours, ...b.colours]) }
  }
  const found_ = new Map<string, string>()
  for (const paper of papers) {
    const own = [...paper.colours].reduce((best, c) => (areas.get(c)! > areas.get(best)! ? c : best))
    for (const colour of paper.colours) found_.set(colour, own)
  }
  return found_
}

/** The two whose union changes colours least: by the squared distance, and the harmonic mean of what they cover. */
function nearest(papers: readonly Paper[]): [number, number] {
  let best: [number, number] = [0, 1]
  let least = Infinity
  for (let i = 0; i < papers.length; i += 1) {
    for (let j = i + 1; j < papers.length; j += 1) {
      const [a, b] = [papers[i]!, papers[j]!]
      const off = a.lab.reduce((sum, v, k) => sum + (v - b.lab[k]!) ** 2, 0)
      const cost = (off * a.area * b.area) / (a.area + b.area)
      if (cost < least) [least, best] = [cost, [i, j]]
    }
  }
  return best
}

/** A colour's place in Oklab, in which equal distances look equally far apart (Ottosson, 2020). */
export function labOf(colour: string): Lab {
  const [r, g, b] = [1, 3, 5].map((i) => linear(parseInt(colour.slice(i, i + 2), 16) / 255)) as [number, number, number]
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b)
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b)
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b)
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ]
}
const linear = (v: number) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)
