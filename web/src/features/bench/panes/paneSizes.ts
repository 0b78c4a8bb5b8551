/** How high the panes at the right are, by hand; kept in the browser, and told to the style sheet. */
import { useLocalStorage } from '@vueuse/core'
import { watchEffect } from 'vue'

export type Sized = 'folded' | 'figures'
const LEAST: Record<Sized, number> = { folded: 110, figures: 90 }
/** px that are left to the other panes. */
const OTHERS = 250

const heights = useLocalStorage<Partial<Record<Sized, number>>>('stileblade.bench.panes', {})
const NAMES: readonly Sized[] = ['folded', 'figures']

watchEffect(() => {
  for (const name of NAMES) {
    const height = heights.value[name]
    const style = document.documentElement.style
    if (height) style.setProperty(`--pane-${name}`, `${height}px`)
    else style.removeProperty(`--pane-${name}`)
  }
})

/** A height as it may be, of a side that is so high. */
export function allowed(name: Sized, height: number, side: number): number {
  return Math.round(Math.max(LEAST[name], Math.min(height, side - OTHERS)))
}

export function usePaneSizes() {
  const set = (name: Sized, height: number, side: number) => (heights.value = { ...heights.value, [name]: allowed(name, height, side) })
  function reset(name: Sized) {
    heights.value = Object.fromEntries(Object.entries(heights.value).filter(([known]) => known !== name))
  }
  return { heights, set, reset }
}
