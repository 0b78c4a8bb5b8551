/** Changes to the pieces of a document, each a pure function to a new one. */
import type { DesignData, PieceData, Values } from '@/shared/api/document'
import { addStep, pieceOf } from './edits'

export type PieceValues = Partial<Pick<PieceData, 'host' | 'panel' | 'side' | 'order' | 'fixing' | 'pad' | 'hidden' | 'paper' | 'name'>>

export function setPiece(document: DesignData, id: string, values: PieceValues): DesignData {
  return { ...document, pieces: document.pieces.map((p) => (p.id === id ? { ...p, ...values } : p)) }
}

/** Without the piece and all that lies on it. */
export function removePiece(document: DesignData, id: string): DesignData {
  const gone = new Set([id])
  for (const p of document.pieces) if (p.host && gone.has(p.host)) gone.add(p.id)
  return { ...document, pieces: document.pieces.filter((p) => !gone.has(p.id)) }
}

/** A piece by itself laid on another one, over all that lies on its outside, by a step that says where. */
export function layOn(document: DesignData, id: string, host: string, step: Values): DesignData {
  const orders = document.pieces.filter((p) => p.host === host && p.side === 'outside').map((p) => p.order)
  const laid = setPiece(document, id, { host, panel: '', side: 'outside', order: Math.max(-1, ...orders) + 1 })
  return addStep(laid, id, pieceOf(laid, id).steps.length, step)[0]
}

/** The pieces that lie beside one: on the same host, panel and side, lowest first. */
export function beside(document: DesignData, piece: PieceData): PieceData[] {
  return document.pieces
    .map((p, n) => ({ p, n }))
    .filter(({ p }) => p.host === piece.host && p.side === piece.side)
    .sort((a, b) => a.p.order - b.p.order || a.n - b.n)
    .map(({ p }) => p)
}

/** One place further from the host's paper (1) or nearer to it (-1); the same document at the end. */
export function restack(document: DesignData, id: string, by: 1 | -1): DesignData {
  const piece = document.pieces.find((p) => p.id === id)
  if (!piece) return document
  const row = beside(document, piece)
  const at = row.indexOf(piece)
  const other = row[at + by]
  if (!other) return document
  row[at + by] = piece
  row[at] = other
  const orders = new Map(row.map((p, n) => [p.id, n]))
  return { ...document, pieces: document.pieces.map((p) => ({ ...p, order: orders.get(p.id) ?? p.order })) }
}

/** A further piece like one, right after it in the list and on top of it, and its key. */
export function copyPiece(document: DesignData, id: string, values: PieceValues): [DesignData, string] {
  const piece = document.pieces.find((p) => p.id === id)
  if (!piece) return [document, id]
  const keys = new Set(document.pieces.map((p) => p.id))
  const names = new Set(document.pieces.map((p) => p.name))
  let n = document.pieces.length + 1
  while (keys.has(`piece-${n}`)) n += 1
  const stem = values.name ?? piece.name
  let name = stem
  for (let i = 2; names.has(name); i += 1) name = `${stem.slice(0, 55)} ${i}`
  const made = { ...piece, ...values, id: `piece-${n}`, name }
  const at = document.pieces.indexOf(piece) + 1
  return [{ ...document, pieces: [...document.pieces.slice(0, at), made, ...document.pieces.slice(at)] }, made.id]
}
