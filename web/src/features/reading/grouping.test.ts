import { describe, expect, it } from 'vitest'
import { apart, boxOf, draftsOf, drawingOf, lifted, together, totals, type Found } from './grouping'

const shape = (name: string, left: number, openings = 0) => ({
  name,
  path: `M${left} 0h1v1z`,
  picture: `P${left}`,
  box: [left, 0, left + 1, 1] as [number, number, number, number],
  contours: 1 + openings,
  openings,
  nodes: 3,
  area: 0.5,
})
const found = (more: Partial<Found> = {}): Found => ({
  kind: 'svg',
  width: 10,
  height: 10,
  sizes: [{ title: 'as the file says', scale: 2 }],
  lines: '',
  nests: false,
  shapes: [shape('Page', 0), shape('Hull', 1), shape('Sail', 2, 1), shape('Sail', 3), shape('', 4)],
  layers: [
    { name: 'Page', colour: '#ffffff', shapes: [0], page: true, shade: false },
    { name: 'Hull', colour: '#000000', shapes: [1], page: false, shade: false },
    { name: 'Main sail', colour: '#ff0000', shapes: [2, 3], page: false, shade: false },
    { name: 'Layer 4', colour: '#00ff00', shapes: [4], page: false, shade: false },
  ],
  open: [],
  open_count: 0,
  remarks: [],
  ...more,
})

describe('layers of a drawing', () => {
  it('come without its page, and with names that say something', () => {
    const drafts = draftsOf(found())
    expect(drafts.map((d) => d.name)).toEqual(['Page', 'Hull', 'Main sail', 'Layer 4'])
    expect(drafts.map((d) => d.kept)).toEqual([false, true, true, true])
    expect(totals(drafts, found())).toEqual({ layers: 3, contours: 5, openings: 1, nodes: 12 })
    expect(boxOf(drafts, found())).toEqual([1, 0, 5, 1])
  })

  it('are put together where the topmost of them is, in the order of painting', () => {
    const drafts = together(draftsOf(found()), [3, 1])
    expect(drafts.map((d) => d.shapes)).toEqual([[0], [2, 3], [1, 4]])
    expect(drafts[2]).toMatchObject({ name: 'Layer 4', colour: '#00ff00', byHand: true })
    expect(together(drafts, [1])).toEqual(drafts)
  })

  it('are taken apart by their shapes, alike ones numbered', () => {
    const drafts = apart(draftsOf(found()), 2, found())
    expect(drafts.map((d) => d.name)).toEqual(['Page', 'Hull', 'Main sail 1', 'Main sail 2', 'Layer 4'])
    expect(apart(drafts, 1, found())).toEqual(drafts)
  })

  it('are lifted and lowered within the pile', () => {
    const drafts = draftsOf(found())
    expect(lifted(drafts, 1, 1).map((d) => d.name)).toEqual(['Page', 'Main sail', 'Hull', 'Layer 4'])
    expect(lifted(drafts, 3, 1)).toEqual(drafts)
  })

  it('are kept with the shapes of each, and whether somebody put them together', () => {
    const drafts = together(draftsOf(found()), [1, 2])
    const kept = drawingOf(found({ nests: true }), drafts, 'Boat', 2)
    expect(kept).toMatchObject({ name: 'Boat', scale: 2, nests: true })
    expect(kept.layers.map((l) => [l.name, l.paths, l.by_hand])).toEqual([
      ['Main sail', ['M1 0h1v1z', 'M2 0h1v1z', 'M3 0h1v1z'], true],
      ['Layer 4', ['M4 0h1v1z'], false],
    ])
  })
})
