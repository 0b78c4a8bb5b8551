/**
 * The open design: its document, undo and redo, and keeping it. Every change is a new document;
 * it is drafted in the browser at once and saved to the server within a second.
 */
import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import { answer, client } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'
import { isSame } from './isSame'

export type SaveState = 'saved' | 'waiting' | 'saving' | 'offline' | 'refused' | 'conflict'
const PAUSE = 600
const RETRY = 4000
const MOST_UNDO = 300

/** `sent` is what was on its way to the server when the draft was written. */
interface Draft {
  revision: number
  document: DesignData
  sent: DesignData | null
}

export function useDesign(id: number) {
  const document = shallowRef<DesignData | null>(null)
  const past = shallowRef<DesignData[]>([])
  const future = shallowRef<DesignData[]>([])
  const state = ref<SaveState>('saved')
  const trouble = ref('')
  const savedAt = ref<Date | null>(null)
  const conflict = shallowRef<{ revision: number; kept: number } | null>(null)
  const restored = ref(false)
  const draftKey = `stileblade-draft-${id}`
  let revision = 0
  let saved: DesignData | null = null
  let inFlight: DesignData | null = null
  let previewFrom: DesignData | null = null
  let timer: ReturnType<typeof setTimeout> | undefined

  async function load() {
    const found = await answer(
      client.GET('/api/designs/{number}', { params: { path: { number: id } } }),
    )
    revision = found.revision
    saved = found.document as unknown as DesignData
    savedAt.value = new Date(found.modified)
    const draft = readDraft()
    if (draft && !isSame(draft.document, saved)) {
      // work that the connection did not carry: it goes on from where it was
      past.value = [saved]
      document.value = draft.document
      restored.value = true
      // a newer revision is our own if it is what we had sent; if not, the server keeps both
      const ours = draft.revision === revision || isSame(draft.sent, saved)
      if (!ours) revision = draft.revision
      schedule(0)
    } else {
      document.value = saved
    }
  }

  function readDraft(): Draft | null {
    try {
      const text = localStorage.getItem(draftKey)
      return text ? (JSON.parse(text) as Draft) : null
    } catch {
      return null
    }
  }

  function writeDraft() {
    try {
      localStorage.setItem(draftKey, JSON.stringify({ revision, document: document.value, sent: inFlight }))
    } catch {
      // a full store only means that there is no bridge for a lost connection
    }
  }

  function put(next: DesignData) {
    document.value = next
    schedule(PAUSE)
  }

  function change(next: DesignData) {
    const from = previewFrom ?? document.value
    previewFrom = null
    if (!from || next === from) return
    past.value = [...past.value.slice(-MOST_UNDO), from]
    future.value = []
    put(next)
  }

  /** Shows a document while something is dragged; `change` makes it count, `giveUp` takes it back. */
  function preview(next: DesignData) {
    previewFrom ??= document.value
    document.value = next
  }

  function giveUp() {
    if (previewFrom) document.value = previewFrom
    previewFrom = null
  }

  function undo() {
    const last = past.value.at(-1)
    if (!last || !document.value) return
    giveUp()
    future.value = [document.value, ...future.value]
    past.value = past.value.slice(0, -1)
    put(last)
  }

  function redo() {
    const next = future.value[0]
    if (!next || !document.value) return
    past.value = [...past.value, document.value]
    future.value = future.value.slice(1)
    put(next)
  }

  function schedule(delay: number) {
    if (state.value === 'conflict') return writeDraft()
    state.value = 'waiting'
    clearTimeout(timer)
    timer = setTimeout(save, delay)
    setTimeout(writeDraft) // not before the edit's own picture is on its way
  }

  async function save() {
    const sending = document.value
    if (!sending || state.value === 'saving') return
    if (previewFrom) return schedule(PAUSE)
    state.value = 'saving'
    const unanswered = inFlight
    inFlight = sending
    writeDraft()
    try {
      const done = await answer(
        client.PUT('/api/designs/{number}', {
          params: { path: { number: id } },
          body: { document: sending as unknown as Record<string, unknown>, revision },
        }),
      )
      revision = done.revision
      saved = sending
      inFlight = null
      savedAt.value = new Date(done.modified)
      trouble.value = ''
      if (document.value === sending) {
        state.value = 'saved'
        localStorage.removeItem(draftKey)
      } else {
        schedule(PAUSE)
      }
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      trouble.value = error.text
      if (error.status === 409 && (await adopt(unanswered))) {
        state.value = 'waiting'
        schedule(0)
      } else if (error.status === 409) {
        state.value = 'conflict'
        conflict.value = { revision: Number(error.more.revision), kept: Number(error.more.kept) }
      } else {
        const lost = error.isOffline || error.status >= 500
        state.value = lost ? 'offline' : 'refused'
        if (lost) timer = setTimeout(save, RETRY)
      }
    }
  }

  /** A newer revision that is our own, saved without an answer, is no conflict: go on from it. */
  async function adopt(unanswered: DesignData | null): Promise<boolean> {
    if (!unanswered) return false
    const call = client.GET('/api/designs/{number}', { params: { path: { number: id } } })
    const found = await answer(call).catch(() => null)
    if (!found || !isSame(found.document, unanswered)) return false
    revision = found.revision
    return true
  }

  /** After a conflict: go on with what is here (the other version stays among the revisions), */
  async function keepMine() {
    if (!conflict.value) return
    revision = conflict.value.revision
    conflict.value = null
    state.value = 'waiting'
    await save()
  }

  /** or with what the server has, */
  async function takeTheirs() {
    localStorage.removeItem(draftKey)
    conflict.value = null
    state.value = 'saved'
    past.value = document.value ? [...past.value, document.value] : past.value
    await load()
  }

  /** or with both: mine becomes a design of its own. Resolves with its number. */
  async function keepBoth(): Promise<number> {
    const mine = document.value!
    const made = await answer(
      client.POST('/api/designs', {
        body: { document: { ...mine, name: `${mine.name.slice(0, 110)} (mine)` } as never },
      }),
    )
    await takeTheirs()
    return made.id
  }

  function leave() {
    clearTimeout(timer)
    if (state.value !== 'saved') writeDraft()
    if (state.value === 'waiting' && document.value !== saved) void save()
  }
  const onHide = () => {
    if (window.document.visibilityState === 'hidden') leave()
  }
  window.document.addEventListener('visibilitychange', onHide)
  onScopeDispose(() => {
    window.document.removeEventListener('visibilitychange', onHide)
    leave()
  })

  return {
    document,
    state,
    trouble,
    savedAt,
    conflict,
    restored,
    canUndo: computed(() => past.value.length > 0),
    canRedo: computed(() => future.value.length > 0),
    load,
    change,
    preview,
    giveUp,
    undo,
    redo,
    save,
    keepMine,
    takeTheirs,
    keepBoth,
  }
}
