/**
 * The open document with what can be undone. Every change is a new document; while something is
 * dragged a passing one is shown, which counts only when it is let go.
 */
import { readonly, ref, shallowRef } from 'vue'
import { useManualRefHistory } from '@vueuse/core'
import type { DesignData } from '@/shared/api/document'

const MOST_UNDO = 300

export function useDocument() {
  const document = shallowRef<DesignData | null>(null)
  const passing = ref(false)
  const history = useManualRefHistory(document, { capacity: MOST_UNDO })

  /** Another document from now on; with `anew` there is nothing to undo. */
  function put(next: DesignData, { anew = false } = {}) {
    passing.value = false
    document.value = next
    history.commit()
    if (anew) history.clear()
  }

  /** A change that counts: one step to undo, however it was dragged. Whether there was one. */
  function change(next: DesignData): boolean {
    const before = history.last.value.snapshot
    if (!before || next === before) return false
    put(next)
    return true
  }

  function preview(next: DesignData) {
    passing.value = true
    document.value = next
  }

  /** Back to what counts. */
  function giveUp() {
    if (passing.value) history.reset()
    passing.value = false
  }

  function step(by: 'undo' | 'redo') {
    giveUp()
    history[by]()
  }

  /** Something from before all that can be undone, which undo comes to then. */
  function putBehind(earlier: DesignData) {
    history.undoStack.value.push({ snapshot: earlier, timestamp: 0 })
  }

  return {
    document,
    passing: readonly(passing),
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    put,
    change,
    preview,
    giveUp,
    putBehind,
    undo: () => step('undo'),
    redo: () => step('redo'),
  }
}

/** What commands need of the open document: they change it, and show what may come of a change. */
export type Changing = Pick<ReturnType<typeof useDocument>, 'document' | 'preview'> & { change: (next: DesignData) => unknown }
