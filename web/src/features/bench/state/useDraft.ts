/** A design's draft in this browser: a bridge over a lost connection. */
import { useLocalStorage } from '@vueuse/core'
import type { DesignData } from '@/shared/api/document'

/** `sent` is what was on its way to the server when the draft was written. */
export interface Draft {
  readonly revision: number
  readonly document: DesignData
  readonly sent: DesignData | null
}

export function useDraft(id: number) {
  const draft = useLocalStorage<Draft | null>(`stileblade-draft-${id}`, null, {
    flush: 'sync',
    shallow: true,
    listenToStorageChanges: false,
    serializer: { read: (text) => JSON.parse(text) as Draft | null, write: (kept) => JSON.stringify(kept) },
    // a full or broken store only means that there is no bridge
    onError: () => undefined,
  })

  return {
    read: () => draft.value,
    write: (kept: Draft) => (draft.value = kept),
    forget: () => (draft.value = null),
  }
}
