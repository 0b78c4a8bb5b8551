/** Layers of a drawing that was read, put together and taken apart by hand. Pure functions. */
import type { Schemas } from '@/shared/api/client'
import type { Drawing } from '@/shared/shelf'

export type Found = Schemas['FoundDrawing']

/** shapes are numbers in the drawing; kept: whether the layer comes along; byHand: whether
 * somebody put it together, so that lines inside lines are openings. */
export interface Draft {
  name: string
  colour: string
  shapes: readonly number[]
  kept: boolean
  byHand: boolean
}

export const MOST_APART = 60

export function draftsOf(found: Found): Draft[] {
  return found.layers.map((layer) => ({
    name: layer.name,
    colour: layer.colour,
    shapes: layer.shapes,
    kept: !layer.page && !layer.shade,
    byHand: false,
  }))
}

/** The chosen layers as one, where the topmost of them is. */
export function together(drafts: readonly Draft[], chosen: readonly number[]): Draft[] {
  const numbers = [...new Set(chosen)].sort((a, b) => a - b)
  if (numbers.length < 2) return [...drafts]
  const top = numbers.at(-1)!
  const shapes = numbers.flatMap((n) => drafts[n]!.shapes).sort((a, b) => a - b)
  const one = { ...drafts[top]!, shapes, kept: numbers.some((n) => drafts[n]!.kept), byHand: true }
  return drafts.flatMap((d, i) => (i === top ? [one] : numbers.includes(i) ? [] : [d]))
}

/** A layer as one for each of its shapes; the same layers where there are too many. */
export function apart(drafts: readonly Draft[], index: number, found: Found): Draft[] {
  const draft = drafts[index]
  if (!draft || draft.shapes.length < 2) return [...drafts]
  if (draft.shapes.length + drafts.length - 1 > MOST_APART) return [...drafts]
  const names = draft.shapes.map((n) => found.shapes[n]!.name)
  const parts = draft.shapes.map((n, i) => {
    const own = names[i]!
    const alone = names.indexOf(own) === names.lastIndexOf(own)
    const name = alone && own ? own : `${draft.name} ${i + 1}`
    return { ...draft, name, shapes: [n], byHand: false }
  })
  return [...drafts.slice(0, index), ...parts, ...drafts.slice(index + 1)]
}

/** A layer one place higher (by 1) or lower (by -1) in the pile. */
export function lifted(drafts: readonly Draft[], index: number, by: 1 | -1): Draft[] {
  const other = index + by
  if (other < 0 || other >= drafts.length) return [...drafts]
  const next = [...drafts]
  ;[next[index], next[other]] = [next[other]!, next[index]!]
  return next
}

export function totals(drafts: readonly Draft[], found: Found) {
  const kept = drafts.filter((d) => d.kept)
  const shapes = kept.flatMap((d) => d.shapes.map((n) => found.shapes[n]!))
  const sum = (of: 'contours' | 'openings' | 'nodes') => shapes.reduce((all, s) => all + s[of], 0)
  return { layers: kept.length, contours: sum('contours'), openings: sum('openings'), nodes: sum('nodes') }
}

/** The box round the kept layers, in drawing units. */
export function boxOf(drafts: readonly Draft[], found: Found): [number, number, number, number] {
  const boxes = drafts.filter((d) => d.kept).flatMap((d) => d.shapes.map((n) => found.shapes[n]!.box))
  if (!boxes.length) return [0, 0, found.width, found.height]
  const side = (i: number, best: (...of: number[]) => number) => best(...boxes.map((b) => b[i]!))
  return [side(0, Math.min), side(1, Math.min), side(2, Math.max), side(3, Math.max)]
}

/** A picture of a layer, as path data. */
export function pictureOf(draft: Draft, found: Found): string {
  return draft.shapes.map((n) => found.shapes[n]!.picture).join('')
}

/** What is kept on the shelf: the shapes of each layer, of which the server makes one outline. */
export function drawingOf(found: Found, drafts: readonly Draft[], name: string, scale: number): Drawing {
  const layers = drafts
    .filter((d) => d.kept)
    .map((d) => ({
      name: d.name,
      colour: d.colour,
      paths: d.shapes.map((n) => found.shapes[n]!.path),
      by_hand: d.byHand,
    }))
  return { name, scale, nests: found.nests, layers }
}
