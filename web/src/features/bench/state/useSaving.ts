/**
 * Keeping a document on the server: one save at a time, always of the newest state. A draft
 * stands in the browser until that has been taken.
 */
import { onScopeDispose, readonly, ref, shallowRef, type Ref } from 'vue'
import { useDocumentVisibility, useTimeoutFn } from '@vueuse/core'
import { whenever } from '@vueuse/core'
import { dequal } from 'dequal/lite'
import { answer, client } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { ApiError } from '@/shared/api/errors'
import { maySend, next, type SaveEvent, type SaveState } from './saving'
import type { LeftDraft } from '@/shared/drafts'
import { useDraft } from './useDraft'

const PAUSE = 600
const RETRY = 4000

/** Browsers send 64 kB at most of what outlives its page. */
const isSmall = (document: DesignData | null) => JSON.stringify(document).length < 60_000

export interface Opened {
  readonly document: DesignData
  /** Drafts that the server never got, the newest first. */
  readonly offered: readonly LeftDraft[]
}

export function useSaving(id: number, owner: string, document: Readonly<Ref<DesignData | null>>, passing: Readonly<Ref<boolean>>) {
  const state = ref<SaveState>('saved')
  const trouble = ref('')
  const savedAt = ref<Date | null>(null)
  const conflict = shallowRef<{ revision: number; kept: number } | null>(null)
  const draft = useDraft(id, owner)
  let revision = 0
  let saved: DesignData | null = null
  /** What was sent and not answered yet. */
  let sent: DesignData | null = null
  const timer = useTimeoutFn(() => void save(), PAUSE, { immediate: false })
  const after = (event: SaveEvent) => (state.value = next(state.value, event))

  const fetched = () => answer(client.GET('/api/designs/{number}', { params: { path: { number: id } } }))

  /** What the server has, and drafts that it never got. */
  async function open(): Promise<Opened> {
    const found = await fetched()
    revision = found.revision
    saved = found.document
    savedAt.value = new Date(found.modified)
    const kept = saved
    return { document: kept, offered: await draft.left((left) => dequal(left, kept)) }
  }

  /** A draft is taken up: where the design has gone on since, the server keeps both. */
  function takeUp(offered: LeftDraft) {
    const ours = offered.revision === revision || (saved && dequal(offered.sent, saved))
    if (!ours) revision = offered.revision
    draft.adopt(offered)
  }

  function writeDraft() {
    if (document.value) draft.write({ revision, document: document.value, sent, at: new Date().toISOString() })
  }

  /** The document is another one: it is saved before long. */
  function changed(delay = PAUSE) {
    after('changed')
    if (state.value === 'waiting') wait(delay)
    // not before the edit's own picture is on its way; it may be saved by then
    setTimeout(() => state.value !== 'saved' && writeDraft())
  }
  function wait(delay: number) {
    timer.stop()
    if (delay === PAUSE) timer.start()
    else setTimeout(() => void save(), delay)
  }

  /** With `keepalive` it goes on when the page is left. */
  async function save({ keepalive = false } = {}): Promise<void> {
    const sending = document.value
    if (!sending || !maySend(state.value)) return
    timer.stop()
    if (passing.value) return wait(PAUSE)
    const unanswered = sent
    after('sent')
    sent = sending
    writeDraft()
    try {
      const done = await answer(
        client.PUT('/api/designs/{number}', {
          params: { path: { number: id } },
          body: { document: sending, revision },
          keepalive,
        }),
      )
      taken(sending, done)
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      await failed(error, unanswered)
    }
  }

  function taken(sending: DesignData, done: { revision: number; modified: string }) {
    revision = done.revision
    saved = sending
    sent = null
    savedAt.value = new Date(done.modified)
    trouble.value = ''
    if (document.value === sending) {
      after('taken')
      draft.forget()
    } else {
      after('behind')
      writeDraft()
      wait(PAUSE)
    }
  }

  async function failed(error: ApiError, unanswered: DesignData | null) {
    trouble.value = error.text
    if (error.status === 409 && (await adopted(unanswered))) {
      after('behind')
      return save()
    }
    if (error.status === 409) {
      conflict.value = { revision: Number(error.more.revision), kept: Number(error.more.kept) }
      after('late')
    } else if (error.isOffline || error.status >= 500) {
      after(error.code === 'not-kept' ? 'full' : 'lost')
      wait(RETRY)
    } else after('refused')
  }

  /** A newer revision that is our own, saved without an answer, is no conflict: go on from it. */
  async function adopted(unanswered: DesignData | null): Promise<boolean> {
    if (!unanswered) return false
    const found = await fetched().catch(() => null)
    if (!found || !dequal(found.document, unanswered)) return false
    revision = found.revision
    return true
  }

  /** After a conflict: go on with what is here; the other version stays among the revisions. */
  async function keepMine() {
    if (!conflict.value) return
    revision = conflict.value.revision
    conflict.value = null
    after('decided')
    await save()
  }

  /** Or with what the server has: the draft goes. */
  async function takeTheirs(): Promise<DesignData> {
    draft.forget()
    conflict.value = null
    timer.stop()
    sent = null
    state.value = 'saved'
    return (await open()).document
  }

  function leave() {
    timer.stop()
    if (state.value !== 'saved') writeDraft()
    if (state.value === 'waiting' && document.value !== saved) void save({ keepalive: isSmall(document.value) })
  }
  const visibility = useDocumentVisibility()
  whenever(() => visibility.value === 'hidden', leave)
  onScopeDispose(leave)

  return {
    state: readonly(state),
    trouble: readonly(trouble),
    savedAt: readonly(savedAt),
    conflict,
    open,
    takeUp,
    letGo: draft.drop,
    changed,
    save: () => save(),
    leave,
    keepMine,
    takeTheirs,
  }
}
