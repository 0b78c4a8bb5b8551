/** Files dropped anywhere on a page, for as long as its component is there. */
import { onBeforeUnmount, onMounted, readonly, ref } from 'vue'

export function useFileDrop(take: (file: File) => void) {
  const over = ref(false)
  let depth = 0

  const hasFile = (event: DragEvent) => Boolean(event.dataTransfer?.types.includes('Files'))
  function enter(event: DragEvent) {
    if (!hasFile(event)) return
    depth += 1
    over.value = true
  }
  function leave(event: DragEvent) {
    if (!hasFile(event)) return
    depth = Math.max(depth - 1, 0)
    over.value = depth > 0
  }
  function above(event: DragEvent) {
    if (hasFile(event)) event.preventDefault()
  }
  function drop(event: DragEvent) {
    if (!hasFile(event)) return
    depth = 0
    over.value = false
    // something on the page has taken it already
    if (event.defaultPrevented) return
    event.preventDefault()
    const file = event.dataTransfer?.files[0]
    if (file) take(file)
  }

  const handlers: [string, (event: DragEvent) => void][] = [
    ['dragenter', enter],
    ['dragleave', leave],
    ['dragover', above],
    ['drop', drop],
  ]
  onMounted(() => handlers.forEach(([name, how]) => window.addEventListener(name, how as EventListener)))
  onBeforeUnmount(() => handlers.forEach(([name, how]) => window.removeEventListener(name, how as EventListener)))
  return { over: readonly(over) }
}
