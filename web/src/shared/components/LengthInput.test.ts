import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import LengthInput from './LengthInput.vue'

function field(props: Record<string, unknown> = {}) {
  const wrapper = mount(LengthInput, {
    props: { modelValue: 130.175, unit: 'mm', label: 'Width', min: 10, max: 500, ...props },
  })
  const input = wrapper.find('input')
  const type = async (text: string) => {
    await input.trigger('focus')
    await input.setValue(text)
    await input.trigger('keydown.enter')
  }
  const emitted = () => wrapper.emitted('update:modelValue')?.map((e) => e[0])
  return { wrapper, input, type, emitted }
}

describe('a length field', () => {
  it('shows the value in its unit and in the other one', () => {
    const { wrapper, input } = field()
    expect((input.element as HTMLInputElement).value).toBe('130.18')
    expect(wrapper.text()).toContain('5.125 in')
  })

  it('takes the other unit, fractions and sums', async () => {
    const { type, emitted } = field()
    await type('5 1/4 in')
    await type('100 + 1in')
    expect(emitted()).toEqual([133.35, 125.4])
  })

  it('says what is wrong and keeps what was typed', async () => {
    const { wrapper, input, type, emitted } = field()
    await type('5 1/8 inn')
    expect(wrapper.get('[role=alert]').text()).toContain("'inn' is no unit")
    expect((input.element as HTMLInputElement).value).toBe('5 1/8 inn')
    expect(emitted()).toBeUndefined()
    await input.trigger('keydown.escape')
    expect(wrapper.find('[role=alert]').exists()).toBe(false)
    expect((input.element as HTMLInputElement).value).toBe('130.18')
  })

  it('holds to its bounds and names them in the present unit', async () => {
    const { wrapper, type, emitted } = field({ unit: 'in' })
    await type('0.1')
    expect(wrapper.get('[role=alert]').text()).toBe('It must be at least 0.394 in.')
    await type('600mm')
    expect(wrapper.get('[role=alert]').text()).toBe('It must be at most 19.685 in.')
    expect(emitted()).toBeUndefined()
  })

  it('is nudged by arrow keys, more with Shift', async () => {
    const { input, emitted } = field({ modelValue: 20 })
    await input.trigger('keydown', { key: 'ArrowUp' })
    await input.trigger('keydown', { key: 'ArrowDown', shiftKey: true })
    expect(emitted()).toEqual([20.1, 19])
  })

  it('does not take a value anew that nobody changed', async () => {
    const { input, emitted } = field()
    await input.trigger('focus')
    await input.trigger('blur')
    expect(emitted()).toBeUndefined()
  })
})
