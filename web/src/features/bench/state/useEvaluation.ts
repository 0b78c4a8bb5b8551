/**
 * What the server computes of the document: one request at a time, always of the newest state.
 * While changes keep coming, as in a drag, it rests after each outcome for as long as that took,
 * so that what follows the pointer is drawn in time; when they pause it computes at once. The flat
 * view comes first; the rest follows when nothing newer is waiting.
 */
import { ref, shallowRef, watch, type Ref } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'

export type Picture = NonNullable<Schemas['StripView']['picture']>
export type Outcome = Schemas['RestView'] & { flat: Schemas['FlatView'] }
const MOST_PICTURES = 600
/** Milliseconds without a change that count as a pause, and the longest rest while there is none. */
const PAUSE = 30
const LONGEST_REST = 150

export function useEvaluation(
  document: Ref<DesignData | null>,
  piece: Ref<string>,
  step: Ref<string | null>,
) {
  const outcome = shallowRef<Outcome | null>(null)
  const pictures = new Map<string, Picture>()
  const trouble = ref('')
  const busy = ref(false)
  let stale = false
  let changed = 0

  async function ask(sent: DesignData, part: Schemas['Wanted']) {
    const body = {
      document: sent,
      piece: piece.value,
      step: step.value,
      known: part === 'flat' ? [] : [...pictures.keys()],
      part,
    }
    return answer(client.POST('/api/evaluate', { body }))
  }

  function keepPictures(strip: readonly Schemas['StripView'][]) {
    for (const s of strip) if (s.picture) pictures.set(s.key, s.picture)
    for (const key of [...pictures.keys()].slice(0, Math.max(0, pictures.size - MOST_PICTURES))) {
      if (!strip.some((s) => s.key === key)) pictures.delete(key)
    }
  }

  /** One document computed; the rest of it is left out where a newer one is waiting. */
  async function compute(sent: DesignData): Promise<void> {
    const before = outcome.value
    const first = await ask(sent, before ? 'flat' : 'all')
    if (before && first.flat) outcome.value = { ...before, flat: first.flat }
    const rest = first.rest ?? (stale ? null : (await ask(sent, 'rest')).rest)
    const flat = first.flat
    if (!rest || !flat) return
    keepPictures(rest.strip)
    outcome.value = { ...rest, flat }
  }

  /** Until changes pause, or for ``most`` milliseconds. */
  async function rest(most: number) {
    const end = performance.now() + most
    for (;;) {
      const now = performance.now()
      const left = Math.min(changed + PAUSE, end) - now
      if (left <= 0) return
      await new Promise<void>((done) => setTimeout(done, left))
    }
  }

  async function run() {
    changed = performance.now()
    if (busy.value) {
      stale = true
      return
    }
    busy.value = true
    do {
      stale = false
      const sent = document.value
      if (!sent) break
      const started = performance.now()
      try {
        await compute(sent)
        trouble.value = ''
      } catch (error) {
        if (!(error instanceof ApiError)) throw error
        trouble.value = error.text
        if (error.isOffline) await new Promise((wait) => setTimeout(wait, 1500))
        stale = stale || error.isOffline
      }
      if (stale) await rest(Math.min(performance.now() - started, LONGEST_REST))
    } while (stale)
    busy.value = false
  }

  watch([document, piece, step], run, { immediate: true })
  return { outcome, pictures, trouble, busy }
}
