import { describe, expect, it } from 'vitest'
import type { DesignData, PieceData } from '@/shared/api/document'
import { copyPiece, removePiece, restack } from './pieceEdits'

const piece = (id: string, host: string, order: number, more: Partial<PieceData> = {}) =>
  ({ id, name: id, host, side: 'outside', panel: '', order, paper: 'a', steps: [], ...more }) as unknown as PieceData
const document = {
  pieces: [piece('base', '', 0), piece('mat', 'base', 0), piece('word', 'base', 1), piece('border', 'word', 0), piece('in', 'base', 0, { side: 'inside' })],
} as unknown as DesignData
const order = (d: DesignData) => Object.fromEntries(d.pieces.map((p) => [p.id, p.order]))

describe('pieces of a card', () => {
  it('are taken away with all that lies on them', () => {
    expect(removePiece(document, 'word').pieces.map((p) => p.id)).toEqual(['base', 'mat', 'in'])
    expect(removePiece(document, 'base').pieces).toEqual([])
  })

  it('change places in the stack of their own side alone', () => {
    expect(order(restack(document, 'mat', 1))).toMatchObject({ mat: 1, word: 0, in: 0 })
    expect(restack(document, 'mat', -1)).toBe(document)
    expect(restack(document, 'in', 1)).toBe(document)
  })

  it('are copied with a key and a name of their own, after their original', () => {
    const [next, id] = copyPiece(document, 'mat', { panel: 'back' })
    expect(next.pieces.map((p) => p.id)).toEqual(['base', 'mat', id, 'word', 'border', 'in'])
    expect(next.pieces[2]).toMatchObject({ name: 'mat 2', panel: 'back', host: 'base' })
  })
})
