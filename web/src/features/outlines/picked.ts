/** What a chosen figure brings into a document. */
import type { Artwork } from '@/shared/api/document'
import type { FullArtwork } from '@/shared/shelf'

export interface PickedOutline {
  title: string
  picture: { layers: readonly { colour: string; path: string }[]; box: readonly number[] }
  /** Values of the figure; of a drawn one, its key is among them. */
  values: Record<string, unknown>
  drawn?: { key: string; artwork: Artwork }
}

export function drawnOutline(row: FullArtwork): PickedOutline {
  return {
    title: row.name,
    picture: row.picture,
    values: { kind: 'drawn', ref: row.key, layers: [], width: 0, height: 0 },
    drawn: { key: row.key, artwork: row.artwork },
  }
}

/** The step that starts a piece with what was chosen: an artwork keeps its layers. */
export function startOf(picked: PickedOutline): Record<string, unknown> {
  return picked.drawn
    ? { kind: 'artwork', ref: picked.drawn.key, layers: [], to: 'panel', margin: 6 }
    : { kind: 'figure', outline: picked.values }
}
