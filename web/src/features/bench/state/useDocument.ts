/**
 * The open document with what can be undone. Every change is a function of the newest document; while something is
 * dragged a passing one is shown, which counts only when it is let go.
 */
import { computed, readonly, ref, shallowRef } from 'vue'
import { useManualRefHistory } from '@vueuse/core'
import type { DesignData } from '@/shared/api/document'
import { CommandLog, type Edit as EditOf, type Later as LaterOf } from './commandLog'

const MOST_UNDO = 300

export type Edit = EditOf<DesignData>
export type Later<A> = LaterOf<DesignData, A>

/** `changed` hears of every document that a command has made. */
export function useDocument(changed: () => void = () => undefined) {
  const document = shallowRef<DesignData | null>(null)
  const passing = ref(false)
  const waiting = ref(0)
  const history = useManualRefHistory(document, { capacity: MOST_UNDO })
  /** Answers that came while something was dragged: they go in when it is let go. */
  let held: (() => void)[] = []

  function commit(next: DesignData) {
    document.value = next
    history.commit()
  }
  const log = new CommandLog<DesignData>(
    {
      now: () => history.last.value.snapshot!,
      put(next) {
        commit(next)
        changed()
      },
      replace(count, documents) {
        const go = () => {
          for (let n = 0; n < count; n += 1) history.undo()
          for (const next of documents) commit(next)
          if (!documents.length) history.redoStack.value = []
          changed()
        }
        if (passing.value) held.push(go)
        else go()
      },
    },
    (count) => (waiting.value = count),
  )

  /** Another document from now on; with `anew` there is nothing to undo. */
  function put(next: DesignData, { anew = false } = {}) {
    settle()
    commit(next)
    if (anew) history.clear()
    log.reset(next)
  }

  /** Back to what counts, with the answers that have come meanwhile. */
  function settle() {
    if (passing.value) history.reset()
    passing.value = false
    const now = held
    held = []
    for (const go of now) go()
  }

  /** A change that counts: one step to undo, however it was dragged. Whether there was one. */
  function change(edit: Edit): boolean {
    settle()
    return history.last.value.snapshot ? log.change(edit) : false
  }

  /** A change whose answer comes later; those made meanwhile are kept. */
  function later<A>(command: Later<A>) {
    settle()
    if (history.last.value.snapshot) log.later(command)
  }

  function preview(edit: Edit) {
    const counts = history.last.value.snapshot
    if (!counts) return
    passing.value = true
    document.value = edit(counts)
  }

  function step(by: 'undo' | 'redo') {
    settle()
    if (by === 'undo' && log.takeBack()) return
    history[by]()
    if (document.value) log.reset(document.value)
  }

  /** Something from before all that can be undone, which undo comes to then. */
  function putBehind(earlier: DesignData) {
    history.undoStack.value.push({ snapshot: earlier, timestamp: 0 })
  }

  return {
    document,
    passing: readonly(passing),
    /** Whether answers are still to come. */
    waiting: computed(() => waiting.value > 0),
    canUndo: computed(() => history.canUndo.value || waiting.value > 0),
    canRedo: history.canRedo,
    put,
    change,
    later,
    preview,
    giveUp: settle,
    putBehind,
    undo: () => step('undo'),
    redo: () => step('redo'),
  }
}

/** What commands need of the open document: they change it, and show what may come of a change. */
export type Changing = Pick<ReturnType<typeof useDocument>, 'document' | 'preview' | 'later'> & { change: (edit: Edit) => unknown }
