/** Files dropped anywhere on a page, for as long as its component is there. */
import { useDropZone, useEventListener } from '@vueuse/core'

export function useFileDrop(take: (file: File) => void) {
  /** Whether something on the page has taken the drop itself. */
  let claimed = false
  useEventListener(window, 'drop', () => (claimed = false), { capture: true })
  useEventListener(document.body, 'drop', (event) => (claimed = event.defaultPrevented))

  const { isOverDropZone } = useDropZone(document.documentElement, {
    checkValidity: (items) => Array.from(items).some((item) => item.kind === 'file'),
    onDrop(files) {
      const [file] = files ?? []
      if (file && !claimed) take(file)
    },
  })
  return { over: isOverDropZone }
}
