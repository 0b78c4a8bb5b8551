/** What is typed and not confirmed yet counts when the page is left: reloaded, closed, or gone on from. */
import { useEventListener } from '@vueuse/core'

export function useLeaving(leave: () => void) {
  useEventListener(window, 'pagehide', () => {
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
    leave()
  })
}
