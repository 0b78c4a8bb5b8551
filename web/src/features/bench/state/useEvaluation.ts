/**
 * What the server computes of the document: one request at a time, always of the newest state.
 * While changes keep coming, as in a drag, it rests after each outcome for as long as that took,
 * so that what follows the pointer is drawn in time; when they pause it computes at once. The outline
 * is drawn first, then what the flat view has about it; the rest follows when nothing newer is waiting,
 * and what is under way of it is left where something newer comes, unless nothing of it has come for a
 * while.
 */
import { computed, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'
import { painted } from '@/shared/painted'

export type Picture = NonNullable<Schemas['StripView']['picture']>
export type Flat = Schemas['FlatView']
export type Rest = Schemas['RestView']
const MOST_PICTURES = 600
/** Milliseconds without a change that count as a pause, and the longest rest while there is none. */
const PAUSE = 30
const LONGEST_REST = 150
/** Milliseconds without the rest after which it is no longer left for something newer. */
const LONGEST_LEFT = 1000
/** Milliseconds after which it is said that it is being computed. */
const SLOW = 500
/** Tells this window's work from that of others, to the server: a newer request ends an older one. */
const ABOUT = Math.random().toString(36).slice(2)

export function useEvaluation(
  document: Ref<DesignData | null>,
  piece: Ref<string>,
  step: Ref<string | null>,
) {
  const flat = shallowRef<Flat | null>(null)
  /** The flat view's outline, which is there before all else of it. */
  const outline = ref('')
  const rest = shallowRef<Rest | null>(null)
  /** The document that the rest is of. */
  const computed_ = shallowRef<DesignData | null>(null)
  /** What the checks say is of before the last change. */
  const behind = computed(() => computed_.value !== document.value && !stopped.value)
  const pictures = new Map<string, Picture>()
  const trouble = ref('')
  const busy = ref(false)
  /** It takes long: since half a second. */
  const slow = ref(false)
  const stopped = ref(false)
  let asking: AbortController | null = null
  let stale = false
  let changed = 0
  /** The piece and step that the flat view shows. */
  let looked = ''
  /** The rest is being asked for; and since when it has been left for something newer. */
  let following = false
  let leaving = Infinity

  async function ask(sent: DesignData, part: Schemas['Wanted']) {
    const body = {
      document: sent,
      piece: piece.value,
      step: step.value,
      known: part === 'flat' ? [] : [...pictures.keys()],
      part,
    }
    asking = new AbortController()
    const headers = { 'X-About': ABOUT }
    return answer(client.POST('/api/evaluate', { body, headers, signal: asking.signal }))
  }

  function keepPictures(strip: readonly Schemas['StripView'][]) {
    for (const s of strip) if (s.picture) pictures.set(s.key, s.picture)
    for (const key of [...pictures.keys()].slice(0, Math.max(0, pictures.size - MOST_PICTURES))) {
      if (!strip.some((s) => s.key === key)) pictures.delete(key)
    }
  }

  /** Of an edit the outline alone, and when that is drawn all that the flat view has. */
  async function draw(found: Flat, shown: string) {
    outline.value = found.path
    if (flat.value && shown === looked && !stale) await painted()
    flat.value = found
    looked = shown
  }

  /** One document computed; the rest of it is left out where a newer one is waiting. */
  async function compute(sent: DesignData): Promise<void> {
    const shown = `${piece.value} ${step.value}`
    const first = await ask(sent, flat.value ? 'flat' : 'all')
    if (!first.flat) return
    await draw(first.flat, shown)
    following = !first.rest && !stale && !stopped.value
    const found = first.rest ?? (following ? (await ask(sent, 'rest')).rest : null)
    if (!found) return
    leaving = Infinity
    keepPictures(found.strip)
    rest.value = found
    computed_.value = sent
  }

  /** Until changes pause, or for ``most`` milliseconds. */
  async function pause(most: number) {
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
    stopped.value = false
    if (busy.value) {
      stale = true
      // what takes long is not waited for, nor what follows the flat view: there is something newer
      if (following) leaving = Math.min(leaving, changed)
      if (slow.value || (following && changed - leaving < LONGEST_LEFT)) asking?.abort()
      return
    }
    busy.value = true
    do {
      stale = false
      const sent = document.value
      if (!sent) break
      const started = performance.now()
      const timer = setTimeout(() => (slow.value = true), SLOW)
      try {
        await compute(sent)
        trouble.value = ''
      } catch (error) {
        if (!(error instanceof ApiError)) throw error
        if (asking?.signal.aborted) continue
        trouble.value = error.text
        // the server is away, or has too much to do: once more before long
        const again = error.isOffline || error.status === 503
        if (again) await new Promise((wait) => setTimeout(wait, 1500))
        stale = stale || again
      } finally {
        clearTimeout(timer)
        following = slow.value = false
      }
      if (stale) await pause(Math.min(performance.now() - started, LONGEST_REST))
    } while (stale)
    busy.value = false
  }

  /** Ends what is being computed; what was shown stays, until something changes or ``run`` is called. */
  function stop() {
    stopped.value = true
    stale = false
    asking?.abort()
  }

  watch([document, piece, step], run, { immediate: true })
  onScopeDispose(stop)
  return { outline, flat, rest, behind, pictures, trouble, busy, slow, stopped, run, stop }
}
