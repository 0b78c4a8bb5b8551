/**
 * A design's draft in this browser: a bridge over a lost connection. It belongs to a design, to a
 * person and to the server's own data; whoever opens the design is offered it, and never given it.
 */
import { useLocalStorage } from '@vueuse/core'
import type { DesignData } from '@/shared/api/document'

/** `sent` is what was on its way to the server when the draft was written, at the time `at`. */
export interface Draft {
  readonly revision: number
  readonly document: DesignData
  readonly sent: DesignData | null
  readonly at: string
}

const isDraft = (value: unknown): value is Draft =>
  typeof value === 'object' && value !== null && 'revision' in value && 'document' in value && 'at' in value

function stored(key: string) {
  return useLocalStorage<Draft | null>(key, null, {
    flush: 'sync',
    shallow: true,
    listenToStorageChanges: false,
    serializer: {
      read: (text) => {
        try {
          const value: unknown = JSON.parse(text)
          return isDraft(value) ? value : null
        } catch {
          return null
        }
      },
      write: (kept) => JSON.stringify(kept),
    },
    // a full or broken store only means that there is no bridge
    onError: () => undefined,
  })
}

/** `owner` tells the person and the server's data from others in this browser. */
export function useDraft(id: number, owner: string) {
  const key = `stileblade-draft-${owner}-${id}`
  const draft = stored(key)
  /** One of before, until it is decided what becomes of it. */
  const offered = stored(`${key}-offered`)

  return {
    write: (kept: Draft) => (draft.value = kept),
    forget: () => (draft.value = null),
    /** What was left here, unless it is what the server has. */
    found(isKept: (document: DesignData) => boolean): Draft | null {
      const left = draft.value
      draft.value = null
      if (left && !isKept(left.document)) offered.value = left
      else if (offered.value && isKept(offered.value.document)) offered.value = null
      return offered.value
    },
    decided: () => (offered.value = null),
  }
}
