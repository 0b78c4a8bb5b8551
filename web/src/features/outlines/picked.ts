/** What a chosen figure brings into a document. */
import type { Schemas } from '@/shared/api/client'
import type { Artwork, Values } from '@/shared/api/document'
import type { Catalogue } from '@/shared/catalogue'
import { initialValues } from '@/shared/form/schemaForm'
import type { FullArtwork } from '@/shared/shelf'

/** Colour in which figures without one of their own are shown. */
export const PLAIN = '#c3d1d2'

export interface PickedOutline {
  title: string
  picture: { layers: readonly { colour: string; path: string }[]; box: readonly number[] }
  /** Values of the figure; of a drawn one, its key is among them. */
  values: Values
  drawn?: { key: string; artwork: Artwork }
}

export function figureOutline(figure: Schemas['FigureKind']): PickedOutline | null {
  if (!figure.picture) return null
  const { path, box } = figure.picture
  return { values: initialValues(figure.form), title: figure.title, picture: { layers: [{ colour: PLAIN, path }], box } }
}

export function drawnOutline(catalogue: Catalogue, row: FullArtwork): PickedOutline {
  const form = catalogue.figureBy('artwork')?.form ?? {}
  return {
    title: row.name,
    picture: row.picture,
    values: { ...initialValues(form), ref: row.key },
    drawn: { key: row.key, artwork: row.artwork },
  }
}

/** The step that starts a piece with what was chosen, or with the card alone: an artwork keeps its layers. */
export function startOf(catalogue: Catalogue, picked: PickedOutline | null): Values {
  const kind = catalogue.startWith(!picked ? 'card' : picked.drawn ? 'artwork' : 'figure')
  const own: Values = !picked ? {} : picked.drawn ? { ref: picked.drawn.key } : { outline: picked.values }
  return { ...initialValues(kind.form), ...kind.usual, ...own }
}
