/** The bench's keys. None of them counts while somebody types, but for saving. */
import { onBeforeUnmount, onMounted } from 'vue'

export interface BenchKeys {
  undo: () => void
  redo: () => void
  save: () => void
  search: () => void
  searching: () => boolean
  whole: () => void
  near: () => void
  turnOver: () => void
  bare: () => void
  loupe: (by: 1 | -1) => void
  giveUp: () => void
}

// a list that is not typed into is read-only
const TYPED = 'textarea, input:not([readonly], [type="radio"], [type="checkbox"], [type="color"])'

export function useBenchKeys(act: BenchKeys) {
  const plain: Record<string, (event: KeyboardEvent) => void> = {
    f: (event) => (event.shiftKey ? act.near() : act.whole()),
    i: act.turnOver,
    l: act.bare,
    ',': () => act.loupe(-1),
    '.': () => act.loupe(1),
  }

  function key(event: KeyboardEvent) {
    const typing = (event.target as HTMLElement).matches(TYPED)
    const name = event.key.toLowerCase()
    if (event.ctrlKey || event.metaKey) {
      if (name === 's') act.save()
      else if (typing) return
      else if (name === 'z') (event.shiftKey ? act.redo : act.undo)()
      else if (name === 'y') act.redo()
      else return
      event.preventDefault()
      return
    }
    if (event.key === 'Escape') return act.giveUp()
    if (typing || event.altKey) return
    if (event.key === '/' && !act.searching()) {
      event.preventDefault()
      act.search()
    } else plain[name]?.(event)
  }
  onMounted(() => window.addEventListener('keydown', key))
  onBeforeUnmount(() => window.removeEventListener('keydown', key))
}
