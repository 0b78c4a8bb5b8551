/**
 * What the server computes of the document: one request at a time, always of the newest state,
 * so that a drag gets outcomes as fast as they can be made and none is waited for twice.
 */
import { ref, shallowRef, watch, type Ref } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'

export type Picture = NonNullable<Schemas['StripView']['picture']>
const MOST_PICTURES = 600

export function useEvaluation(
  document: Ref<DesignData | null>,
  piece: Ref<string>,
  step: Ref<string | null>,
) {
  const outcome = shallowRef<Schemas['Evaluated'] | null>(null)
  const pictures = new Map<string, Picture>()
  const trouble = ref('')
  const busy = ref(false)
  let stale = false

  async function run() {
    if (busy.value) {
      stale = true
      return
    }
    busy.value = true
    do {
      stale = false
      const sent = document.value
      if (!sent) break
      try {
        const got = (await answer(
          client.POST('/api/evaluate', {
            body: {
              document: sent as unknown as Record<string, unknown>,
              piece: piece.value,
              step: step.value,
              known: [...pictures.keys()],
            },
          }),
        )) as Schemas['Evaluated']
        for (const s of got.strip) if (s.picture) pictures.set(s.key, s.picture)
        for (const key of [...pictures.keys()].slice(0, Math.max(0, pictures.size - MOST_PICTURES))) {
          if (!got.strip.some((s) => s.key === key)) pictures.delete(key)
        }
        outcome.value = got
        trouble.value = ''
        performance.mark('stileblade-outcome')
      } catch (error) {
        if (!(error instanceof ApiError)) throw error
        trouble.value = error.text
        if (error.isOffline) await new Promise((wait) => setTimeout(wait, 1500))
        stale = stale || error.isOffline
      }
    } while (stale)
    busy.value = false
  }

  watch([document, piece, step], run, { immediate: true })
  return { outcome, pictures, trouble, busy }
}
