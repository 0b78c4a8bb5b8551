import { describe, expect, it } from 'vitest'
import type { Draft, Found } from './grouping'
import { coloursOf, labOf, onPapers } from './papers'

/** A shape of 1 x 1 at a place, and its layer. */
const shape = (left: number, area = 1) => ({ box: [left, 0, left + 1, 1], area }) as unknown as Found['shapes'][number]
const layer = (colour: string, n: number, kept = true): Draft => ({ name: `${colour} ${n}`, colour, shapes: [n], kept, byHand: false })
const found = (shapes: Found['shapes'][number][]) => ({ shapes }) as unknown as Found

describe('many colours on a few papers', () => {
  it('puts the nearest colours together and keeps the one that covers most', () => {
    const at = found([shape(0, 5), shape(2), shape(4), shape(6)])
    const drafts = [layer('#0000ff', 0), layer('#0000f0', 1), layer('#ff0000', 2), layer('#00ff00', 3)]
    expect(onPapers(drafts, at, 3).map((d) => [d.colour, d.shapes])).toEqual([
      ['#0000ff', [0, 1]],
      ['#ff0000', [2]],
      ['#00ff00', [3]],
    ])
    expect(onPapers(drafts, at, 9)).toEqual(drafts)
    expect(coloursOf(onPapers(drafts, at, 1))).toBe(1)
  })

  it('leaves layers apart where another lies between them, so that the picture stays', () => {
    const blueRedBlue = (between: number) => found([shape(0), shape(between), shape(0.5)])
    const drafts = [layer('#0000ff', 0), layer('#ff0000', 1), layer('#0000fe', 2)]
    expect(onPapers(drafts, blueRedBlue(0.7), 2).map((d) => d.shapes)).toEqual([[0], [1], [2]])
    expect(onPapers(drafts, blueRedBlue(7), 2).map((d) => d.shapes)).toEqual([[0, 2], [1]])
  })

  it('lets layers that do not come along be', () => {
    const at = found([shape(0), shape(2), shape(4)])
    const drafts = [layer('#ffffff', 0, false), layer('#eeeeee', 1), layer('#000000', 2)]
    expect(onPapers(drafts, at, 1).map((d) => [d.kept, d.colour])).toEqual([[false, '#ffffff'], [true, '#eeeeee']])
  })

  it('is quick with a drawing of 255 colours', () => {
    const at = found(Array.from({ length: 255 }, (_, i) => shape(i / 7, 1 + (i % 5))))
    const drafts = at.shapes.map((_, i) => layer(`#${(i * 65793).toString(16).padStart(6, '0')}`, i))
    const begun = performance.now()
    expect(coloursOf(onPapers(drafts, at, 8))).toBe(8)
    expect(performance.now() - begun).toBeLessThan(2000)
  })

  it('measures colours as they are seen', () => {
    expect(labOf('#ffffff').map((v) => Math.round(v * 1000) / 1000)).toEqual([1, 0, 0])
    expect(labOf('#000000')).toEqual([0, 0, 0])
  })
})
