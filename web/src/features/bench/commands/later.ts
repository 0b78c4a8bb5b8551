/**
 * All commands whose answers come from the server. Each asks its question of the newest document and changes that one:
 * nothing here keeps a document from one moment to put it in at another.
 */
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { tellError } from '@/shared/messages'
import type { Card, OtherCard } from '@/features/folding'
import type { Later } from '../state/useDocument'
import { applyChanges } from './edits'

/** The answer, or null where there is none, which has been said. */
const asked = <A>(question: Promise<A>): Promise<A | null> =>
  question.catch((error: unknown) => {
    tellError(error)
    return null
  })

/** The design on another card: its steps are placed anew there, its figures made larger or smaller with the card or by a
 * factor. Meanwhile the card itself is shown as it will be. */
export function refolded(
  card: (now: Card) => Card,
  told: (found: OtherCard) => void = () => undefined,
  figures: { readonly along?: boolean; readonly factor?: number } = {},
): Later<OtherCard> {
  return {
    ask: async (document) => {
      const found = await asked(answer(client.POST('/api/refold', { body: { document, cards: [card(document.card)], ...figures } })))
      return found?.[0] ?? null
    },
    apply(_, found) {
      told(found)
      return found.document
    },
    meanwhile: (now) => ({ ...now, card: card(now.card) }),
  }
}

/** Pieces that were offered: asked for once more where the document has gone on since they were. */
export function pieced(
  offer: Schemas['OfferView'],
  of: { readonly document: DesignData; readonly panel: string },
  added: (keys: readonly string[]) => void,
): Later<Schemas['OfferView']> {
  return {
    ask: async (document) => {
      if (document === of.document) return offer
      const offers = await asked(answer(client.POST('/api/offers', { body: { document, panel: of.panel } })))
      return offers?.find((o) => o.title === offer.title) ?? null
    },
    apply(now, found) {
      added(found.added)
      return { ...now, pieces: found.pieces, papers: found.papers }
    },
  }
}

/** Kept aims reached again. */
export function aimed(reached: (next: DesignData) => void): Later<Schemas['KeptView']> {
  return {
    ask: (document) => asked(answer(client.POST('/api/aims', { body: { document } }))),
    apply(now, { changes }) {
      if (!changes.length) return now
      const [next] = applyChanges(now, changes)
      reached(next)
      return next
    },
  }
}
