/** Pixels of this screen to a mm, as somebody measured them; null before. */
import { ref, watch } from 'vue'

const NAME = 'stileblade-px-per-mm'

function kept(): number | null {
  try {
    const value = Number(localStorage.getItem(NAME))
    return value > 1 && value < 40 ? value : null
  } catch {
    return null // a browser that keeps nothing
  }
}

export const rulerScale = ref<number | null>(kept())
watch(rulerScale, (value) => {
  try {
    if (value) localStorage.setItem(NAME, String(value))
  } catch {
    // it is asked for again next time
  }
})
