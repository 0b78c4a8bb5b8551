import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { defineComponent, h } from 'vue'
import { useFileDrop } from './useFileDrop'

function mounted(take: (file: File) => void) {
  let over: { readonly value: boolean } = { value: false }
  const wrapper = mount(
    defineComponent({
      setup() {
        over = useFileDrop(take).over
        return () => h('main')
      },
    }),
  )
  return { wrapper, isOver: () => over.value }
}

const place = document.body.appendChild(document.createElement('div'))

function fire(kind: string, files: File[], types = ['Files']) {
  const event = new Event(kind, { bubbles: true, cancelable: true })
  const items = types.map((type) => ({ kind: type === 'Files' ? 'file' : 'string', type: '' }))
  Object.assign(event, { dataTransfer: { types, files, items } })
  place.dispatchEvent(event)
  return event
}

describe('files let go over a page', () => {
  const file = new File(['<svg/>'], 'boat.svg')

  it('are taken, and the hint goes', () => {
    const take = vi.fn()
    const { wrapper, isOver } = mounted(take)
    fire('dragenter', [])
    expect(isOver()).toBe(true)
    expect(fire('dragover', []).defaultPrevented).toBe(true)
    expect(fire('drop', [file]).defaultPrevented).toBe(true)
    expect(isOver()).toBe(false)
    expect(take).toHaveBeenCalledExactlyOnceWith(file)
    wrapper.unmount()
    fire('drop', [file])
    expect(take).toHaveBeenCalledTimes(1)
  })

  it('are left alone where something on the page has taken them, and text is', () => {
    const take = vi.fn()
    const { wrapper, isOver } = mounted(take)
    const own = (event: Event) => event.preventDefault()
    place.addEventListener('drop', own)
    fire('dragenter', [])
    fire('drop', [file])
    expect(isOver()).toBe(false)
    place.removeEventListener('drop', own)
    fire('dragenter', [], ['text/plain'])
    expect(isOver()).toBe(false)
    expect(fire('drop', [], ['text/plain']).defaultPrevented).toBe(false)
    expect(take).not.toHaveBeenCalled()
    wrapper.unmount()
  })
})
