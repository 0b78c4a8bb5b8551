import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { defineComponent, ref, withDirectives, h } from 'vue'
import { arrows, towards } from './arrows'

const at = (column: number, row: number, width = 20) => ({ left: column * 30, top: row * 40, width, height: 30 })

describe('arrows in a group', () => {
  it('go along the row and round its ends', () => {
    const row = [at(0, 0), at(1, 0), at(2, 0)]
    expect(towards(row, 0, 'ArrowRight')).toBe(1)
    expect(towards(row, 2, 'ArrowRight')).toBe(0)
    expect(towards(row, 0, 'ArrowLeft')).toBe(2)
    expect(towards(row, 1, 'ArrowDown')).toBe(2)
    expect(towards(row, 1, 'Home')).toBe(0)
    expect(towards(row, 1, 'End')).toBe(2)
  })
  it('go to what lies nearest above and below, and stay at the edge', () => {
    const grid = [at(0, 0), at(1, 0), at(2, 0), at(0, 1), at(1, 1), at(0, 2)]
    expect(towards(grid, 1, 'ArrowDown')).toBe(4)
    expect(towards(grid, 2, 'ArrowDown')).toBe(4)
    expect(towards(grid, 4, 'ArrowDown')).toBe(5)
    expect(towards(grid, 5, 'ArrowDown')).toBe(5)
    expect(towards(grid, 5, 'ArrowUp')).toBe(3)
    expect(towards(grid, 1, 'ArrowUp')).toBe(1)
  })
  it('choose what they go to, and leave one place for Tab', async () => {
    const Group = defineComponent(() => {
      const chosen = ref(1)
      return () =>
        withDirectives(
          h('div', { role: 'radiogroup' }, [0, 1, 2].map((n) => h('button', { role: 'radio', 'aria-checked': chosen.value === n, onClick: () => (chosen.value = n) }, `${n}`))),
          [[arrows]],
        )
    })
    const wrapper = mount(Group, { attachTo: document.body })
    const radios = wrapper.findAll('button')
    const places = () => radios.map((r) => r.element.tabIndex)
    expect(places()).toEqual([-1, 0, -1])
    await radios[1]!.trigger('keydown', { key: 'ArrowRight' })
    expect(document.activeElement).toBe(radios[2]!.element)
    expect(radios.map((r) => r.attributes('aria-checked'))).toEqual(['false', 'false', 'true'])
    expect(places()).toEqual([-1, -1, 0])
    wrapper.unmount()
  })
})
