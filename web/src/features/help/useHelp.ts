/** The help, opened from everywhere by its button or by "?". */
import { ref } from 'vue'

const open = ref(false)
export const useHelp = () => ({ open })

/** Whether somebody types, so that "?" is a letter. */
export function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.isContentEditable || target.matches('textarea, input:not([readonly], [type="radio"], [type="checkbox"])'))
}
