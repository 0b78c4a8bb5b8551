/** The design on another card: the server places its steps anew and says what it could not keep. */
import { readonly, ref } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { tellError } from '@/shared/messages'
import { t } from '@/shared/words'

export type Card = DesignData['card']
export type OtherCard = Schemas['OtherCard']

export function useRefold() {
  const busy = ref(false)

  /** The design on each of the cards, in order, its figures made larger or smaller with the card or not; null where that
   * failed, which has been said. */
  async function refold(document: DesignData, cards: readonly Card[], along = false): Promise<readonly OtherCard[] | null> {
    busy.value = true
    try {
      return await answer(client.POST('/api/refold', { body: { document, cards, along } }))
    } catch (error) {
      tellError(error)
      return null
    } finally {
      busy.value = false
    }
  }
  return { refold, busy: readonly(busy) }
}

/** What became of the steps, in one line. */
export function inWords(found: Pick<OtherCard, 'kept' | 'changes'>): string {
  const off = found.changes.filter((c) => c.what === 'off').length
  const stayed = found.changes.filter((c) => c.what === 'stayed').length
  const placed = found.changes.length - off - stayed
  return [
    t('{n} step kept | {n} steps kept', found.kept),
    placed ? t('{n} of them placed anew', { n: placed }) : '',
    off ? t('{n} switched off', { n: off }) : '',
    stayed ? t('{n} figure stays as large as it is | {n} figures stay as large as they are', { n: stayed }) : '',
  ]
    .filter(Boolean)
    .join(', ')
}
