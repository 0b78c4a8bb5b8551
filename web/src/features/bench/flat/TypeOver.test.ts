import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import TypeOver from './TypeOver.vue'

function over(unit: 'mm' | 'in' = 'mm') {
  const take = vi.fn()
  const typed = { x: 10, y: 20, value: 25.4, label: 'From the left', take }
  const wrapper = mount(TypeOver, { props: { typed, unit }, attachTo: document.body })
  const input = wrapper.find('input')
  const enter = async (text: string) => {
    await input.setValue(text)
    await wrapper.find('form').trigger('submit')
  }
  return { wrapper, input, take, enter }
}

describe('a figure typed over', () => {
  it('stands ready with the old one, in the present unit', () => {
    const { input } = over('in')
    expect((input.element as HTMLInputElement).value).toBe('1')
    expect(document.activeElement).toBe(input.element)
  })

  it('takes sums and the other unit, once', async () => {
    const { wrapper, take, enter, input } = over()
    await enter('1 1/2in + 1')
    await input.trigger('blur')
    expect(take.mock.calls).toEqual([[expect.closeTo(39.1)]])
    expect(wrapper.emitted('close')).toHaveLength(1)
  })

  it('says what is wrong and stays; left so, nothing changes', async () => {
    const { wrapper, take, enter, input } = over()
    await enter('12 inn')
    expect(wrapper.get('[role=alert]').text()).toContain("'inn' is no unit")
    expect(wrapper.emitted('close')).toBeUndefined()
    await input.trigger('blur')
    expect(take).not.toHaveBeenCalled()
    expect(wrapper.emitted('close')).toHaveLength(1)
  })

  it('leaves it as it was by Escape, and where nothing was changed', async () => {
    const first = over()
    await first.input.setValue('99')
    await first.input.trigger('keydown.esc')
    expect(first.take).not.toHaveBeenCalled()
    const second = over()
    await second.enter('25.4')
    expect(second.take).not.toHaveBeenCalled()
    expect(second.wrapper.emitted('close')).toHaveLength(1)
  })
})
