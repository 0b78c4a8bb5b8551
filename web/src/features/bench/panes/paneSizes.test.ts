import { nextTick } from 'vue'
import { describe, expect, it } from 'vitest'
import { allowed, usePaneSizes } from './paneSizes'

describe('panes', () => {
  it('are neither too low, nor so high that others have no room', () => {
    expect(allowed('folded', 20, 750)).toBe(110)
    expect(allowed('folded', 300.4, 750)).toBe(300)
    expect(allowed('figures', 900, 750)).toBe(500)
  })
  it('are kept, told to the style sheet, and given back what they were', async () => {
    const { set, reset, heights } = usePaneSizes()
    set('folded', 240, 750)
    set('figures', 200, 750)
    await nextTick()
    const style = document.documentElement.style
    expect(style.getPropertyValue('--pane-folded')).toBe('240px')
    reset('folded')
    await nextTick()
    expect(style.getPropertyValue('--pane-folded')).toBe('')
    expect(heights.value).toEqual({ figures: 200 })
  })
})
