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

  /** A figure that was entered and not touched since: keys are the bench's again, although it keeps the focus. */
  let entered: EventTarget | null = null
  const isEntered = (target: HTMLElement) => target === entered && target.closest('.measure') !== null

  function key(event: KeyboardEvent) {
    const target = event.target as HTMLElement
    // an open list has the keys to itself
    if (target.getAttribute('aria-expanded') === 'true' && target.getAttribute('role') === 'combobox') return
    const typing = target.matches(TYPED) && !isEntered(target)
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
    } else if (plain[name]) {
      event.preventDefault()
      plain[name](event)
    }
  }
  function enter(event: KeyboardEvent) {
    if (event.key === 'Enter') entered = event.target
  }
  const touch = (event: Event) => {
    if (event.target === entered) entered = null
  }
  const listeners = [['keydown', key], ['keyup', enter], ['input', touch], ['focusout', touch]] as const
  onMounted(() => listeners.forEach(([name, act]) => window.addEventListener(name, act as EventListener)))
  onBeforeUnmount(() => listeners.forEach(([name, act]) => window.removeEventListener(name, act as EventListener)))
}
