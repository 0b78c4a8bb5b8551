import { mount, type VueWrapper } from '@vue/test-utils'
import ElementPlus from 'element-plus'
import { describe, expect, it } from 'vitest'
import { defineComponent, h } from 'vue'
import { provideChoices, type Choices } from './choices'
import { CONTROLS, spanOf } from './controls'
import FieldControl from './FieldControl.vue'
import type { Control, Field } from './schemaForm'

const CHOICES: Choices = {
  unit: 'mm',
  targets: ['front', 'card'],
  offers: { of: ['fold 1'] },
  windows: [{ key: 's2', title: 'step 2, Window on front' }],
  pieces: [{ key: 'base', title: 'Base' }],
}
const field = (control: Control, more: Partial<Field> = {}): Field => ({
  name: 'value', title: 'Value', description: 'What it is.', control, initial: 0, options: [], when: {}, empty: '', ...more,
})

/** A field in a form that provides its choices; what it asks for comes back. */
function inForm(of: Field, value: unknown, trouble?: string) {
  const asked: unknown[] = []
  const form = defineComponent({
    setup() {
      provideChoices(() => CHOICES)
      return () => h(FieldControl, { field: of, value, trouble, onChange: (v: unknown) => asked.push(v) })
    },
  })
  return { wrapper: mount(form, { global: { plugins: [ElementPlus] }, attachTo: document.body }), asked }
}
async function typed(wrapper: VueWrapper, text: string) {
  const input = wrapper.find('input')
  await input.trigger('focus')
  await input.setValue(text)
  await input.trigger('change')
  await input.trigger('blur')
}
const optionsOf = (wrapper: VueWrapper) =>
  wrapper.findAllComponents({ name: 'ElOption' }).map((o) => [o.props('value'), o.props('label')])

describe('each kind of control', () => {
  it('a length takes the other unit and sums, and says what is out of bounds', async () => {
    const { wrapper, asked } = inForm(field('length', { min: 0, max: 100 }), 12)
    await typed(wrapper, '1/2 in + 1mm')
    expect(asked).toEqual([13.7])
    await typed(wrapper, '300')
    expect(asked).toEqual([13.7])
    expect(wrapper.find('[role=alert]').exists()).toBe(true)
  })

  it.each([
    ['angle', '45', 45],
    ['area', '3.5', 3.5],
    ['count', '7', 7],
    ['share', '0.5', 0.5],
  ] as const)('a number: %s', async (control, text, value) => {
    const { wrapper, asked } = inForm(field(control, { min: 0, max: 100 }), 1)
    await typed(wrapper, text)
    expect(asked).toEqual([value])
  })

  it('a switch says its title itself', async () => {
    const { wrapper, asked } = inForm(field('switch'), false)
    expect(wrapper.findAll('.title')).toHaveLength(0)
    await wrapper.find('input').setValue(true)
    expect(asked).toEqual([true])
  })

  it('a choice is a list, or arrows for the four sides', async () => {
    const options = ['left', 'right', 'above', 'below'].map((value) => ({ value, label: `to the ${value}` }))
    const sides = inForm(field('choice', { options }), 'left')
    await sides.wrapper.find('[aria-label="to the below"] input, input[value=below]').setValue(true)
    expect(sides.asked).toEqual(['below'])
    const list = inForm(field('choice', { options: options.slice(0, 2) }), 'left')
    expect(optionsOf(list.wrapper)).toEqual([['left', 'to the left'], ['right', 'to the right']])
  })

  it('an anchor is one of nine places', async () => {
    const { wrapper, asked } = inForm(field('anchor'), 'centre')
    await wrapper.findAll('button')[0]!.trigger('click')
    expect(asked).toEqual(['head-left'])
  })

  it('a target is a panel, the card, or a window, and one that is gone stays', () => {
    const { wrapper } = inForm(field('target', { name: 'target', empty: 'no other' }), 'left door')
    expect(optionsOf(wrapper)).toEqual([
      ['', 'no other'], ['left door', 'left door'], ['front', 'front'], ['card', 'open card'],
      ['step:s2', 'step 2, Window on front'],
    ])
  })

  it.each([
    ['fold', ['fold 1', 'fold 1']],
    ['window', ['s2', 'step 2, Window on front']],
    ['piece', ['base', 'Base']],
  ] as const)('one that has a name: %s', (control, option) => {
    const { wrapper } = inForm(field(control, { name: 'of', empty: 'the first' }), '')
    expect(optionsOf(wrapper)).toEqual([['', 'the first'], [...option]])
  })

  it('a text', async () => {
    const { wrapper, asked } = inForm(field('text'), 'Ahoy')
    await typed(wrapper, 'Tides')
    expect(asked.at(-1)).toBe('Tides')
  })

  it('shows its trouble, unless the control does so itself', () => {
    expect(inForm(field('choice'), 'x', 'It does not fit.').wrapper.find('.message').text()).toBe('It does not fit.')
    expect(inForm(field('length'), 1, 'Too long.').wrapper.findAll('.message').length).toBeLessThanOrEqual(1)
  })

  it('has a place in the map, and takes as much of a row as it needs', () => {
    const own: Control[] = ['outline', 'layers', 'picks', 'panels', 'artwork', 'hidden']
    expect(Object.keys(CONTROLS)).not.toEqual(expect.arrayContaining(own))
    expect([spanOf(field('switch')), spanOf(field('choice')), spanOf(field('length'))]).toEqual(['row', 'double', ''])
  })
})
