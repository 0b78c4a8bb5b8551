import { describe, expect, it } from 'vitest'
import type { DesignData, Paper } from '@/shared/api/document'
import { dropPaper, givePaper, ownPaper, putPaper, replacePaper, usesOf } from './paperEdits'

const paper = (id: string, outside = '#ffffff') => ({ id, name: id, outside }) as unknown as Paper
const document = {
  papers: [paper('sand'), paper('navy'), paper('spare')],
  pieces: [
    { id: 'base', paper: 'sand' },
    { id: 'mat', paper: 'navy' },
    { id: 'word', paper: 'navy' },
  ],
} as unknown as DesignData
const papers = (d: DesignData) => d.papers.map((p) => p.id)
const given = (d: DesignData) => d.pieces.map((p) => p.paper)

describe('the papers of a design', () => {
  it('are counted by their pieces', () => {
    expect([...usesOf(document)]).toEqual([['sand', 1], ['navy', 2], ['spare', 0]])
  })
  it('are changed for all pieces of them', () => {
    const next = putPaper(document, paper('navy', '#000080'))
    expect(papers(next)).toEqual(['sand', 'navy', 'spare'])
    expect(next.papers[1]!.outside).toBe('#000080')
    expect(given(next)).toEqual(['sand', 'navy', 'navy'])
  })
  it('are given to one piece; the one before goes with its last piece', () => {
    const one = givePaper(document, 'mat', paper('red'))
    expect([papers(one), given(one)]).toEqual([['sand', 'navy', 'spare', 'red'], ['sand', 'red', 'navy']])
    const last = givePaper(document, 'base', paper('navy'))
    expect([papers(last), given(last)]).toEqual([['navy', 'spare'], ['navy', 'navy', 'navy']])
    expect(papers(givePaper(document, 'base', paper('sand', '#eeeeee')))).toEqual(['sand', 'navy', 'spare'])
  })
  it('are put in the place of another everywhere', () => {
    const next = replacePaper(document, 'navy', paper('red'))
    expect([papers(next), given(next)]).toEqual([['sand', 'spare', 'red'], ['sand', 'red', 'red']])
    expect(given(replacePaper(document, 'navy', document.papers[0]!))).toEqual(['sand', 'sand', 'sand'])
  })
  it('are made a piece’s own', () => {
    const next = ownPaper(document, 'word')
    expect([papers(next), given(next)]).toEqual([['sand', 'navy', 'navy-2', 'spare'], ['sand', 'navy', 'navy-2']])
    expect(next.papers[2]).toMatchObject({ name: 'navy 2', outside: '#ffffff' })
    expect(ownPaper(next, 'mat').papers.map((p) => p.id)).toContain('navy-3')
  })
  it('stay as long as a piece is of them', () => {
    expect(papers(dropPaper(document, 'spare'))).toEqual(['sand', 'navy'])
    expect(dropPaper(document, 'navy')).toBe(document)
  })
})
