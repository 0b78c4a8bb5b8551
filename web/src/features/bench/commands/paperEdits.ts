/** Changes to the papers of a document, its palette, each a pure function to a new one. */
import type { DesignData, Paper } from '@/shared/api/document'

/** How many pieces are of each paper, by its key. */
export function usesOf(document: DesignData): Map<string, number> {
  const found = new Map(document.papers.map((p) => [p.id, 0]))
  for (const piece of document.pieces) found.set(piece.paper, (found.get(piece.paper) ?? 0) + 1)
  return found
}

/** The paper changed, or put into the palette: all pieces of it follow. */
export function putPaper(document: DesignData, paper: Paper): DesignData {
  const known = document.papers.some((p) => p.id === paper.id)
  return { ...document, papers: known ? document.papers.map((p) => (p.id === paper.id ? paper : p)) : [...document.papers, paper] }
}

/** The paper put in, and given to a piece; the one that it had goes where no other piece is of it. */
export function givePaper(document: DesignData, piece: string, paper: Paper): DesignData {
  const before = document.pieces.find((p) => p.id === piece)?.paper
  const given = { ...putPaper(document, paper), pieces: document.pieces.map((p) => (p.id === piece ? { ...p, paper: paper.id } : p)) }
  const unused = before !== paper.id && !given.pieces.some((p) => p.paper === before)
  return unused ? { ...given, papers: given.papers.filter((p) => p.id !== before) } : given
}

/** Another paper in the place of one, for all pieces that are of it. */
export function replacePaper(document: DesignData, id: string, by: Paper): DesignData {
  const put = putPaper(document, by)
  return {
    ...put,
    papers: put.papers.filter((p) => p.id !== id || id === by.id),
    pieces: put.pieces.map((p) => (p.paper === id ? { ...p, paper: by.id } : p)),
  }
}

/** A copy of the piece's paper for it alone, to be changed by itself. */
export function ownPaper(document: DesignData, piece: string): DesignData {
  const own = document.pieces.find((p) => p.id === piece)
  const paper = document.papers.find((p) => p.id === own?.paper)
  if (!own || !paper) return document
  const keys = new Set(document.papers.map((p) => p.id))
  let n = 2
  while (keys.has(`${paper.id.slice(0, 36)}-${n}`)) n += 1
  const made = { ...paper, id: `${paper.id.slice(0, 36)}-${n}`, name: `${paper.name.slice(0, 56)} ${n}` }
  const at = document.papers.indexOf(paper) + 1
  return {
    ...document,
    papers: [...document.papers.slice(0, at), made, ...document.papers.slice(at)],
    pieces: document.pieces.map((p) => (p === own ? { ...p, paper: made.id } : p)),
  }
}

/** Without a paper that no piece is of; a palette has one at least. */
export function dropPaper(document: DesignData, id: string): DesignData {
  if (document.pieces.some((p) => p.paper === id) || document.papers.length < 2) return document
  return { ...document, papers: document.papers.filter((p) => p.id !== id) }
}
