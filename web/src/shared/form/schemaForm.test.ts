import { describe, expect, it } from 'vitest'
import { counts, fieldsOf, initialValues } from './schemaForm'

const form = {
  $defs: { Towards: { title: 'Towards', type: 'string', enum: ['left', 'right'] } },
  properties: {
    id: { default: '', title: 'Key' },
    on: { default: true, title: 'On', type: 'boolean' },
    kind: { const: 'mirror', default: 'mirror' },
    towards: { $ref: '#/$defs/Towards', default: 'left', labels: { left: 'to the left' } },
    lap: { default: 3, title: 'Lap', type: 'number', unit: 'mm', minimum: 0, when: { towards: ['left'] } },
    target: { default: 'front', title: 'On', type: 'string', control: 'target' },
    keep: { default: true, title: 'Keep', type: 'boolean' },
  },
}

describe('a form from a schema', () => {
  it('has a field for every value with the control that its schema asks for', () => {
    const fields = fieldsOf(form)
    expect(fields.map((f) => [f.name, f.title, f.control])).toEqual([
      ['towards', 'Towards', 'choice'],
      ['lap', 'Lap', 'length'],
      ['target', 'On', 'target'],
      ['keep', 'Keep', 'switch'],
    ])
    expect(fields[0]!.options).toEqual([
      { value: 'left', label: 'to the left' },
      { value: 'right', label: 'right' },
    ])
    expect(fields[1]).toMatchObject({ min: 0, initial: 3 })
  })

  it('shows a field only where it counts', () => {
    const lap = fieldsOf(form)[1]!
    expect(counts(lap, { towards: 'left' })).toBe(true)
    expect(counts(lap, { towards: 'right' })).toBe(false)
  })

  it('shows what counts for any value but the empty one', () => {
    const [only] = fieldsOf({ properties: { a: { type: 'boolean', when: { b: ['*'] } } } })
    expect(counts(only!, { b: 'back' })).toBe(true)
    expect(counts(only!, { b: '' })).toBe(false)
    expect(counts(only!, {})).toBe(false)
  })

  it('keeps what is not for hands out of the form', () => {
    expect(fieldsOf({ properties: { a: { type: 'string', control: 'hidden' } } })).toEqual([])
  })

  it('starts with the defaults', () => {
    expect(initialValues(form)).toEqual({
      on: true, kind: 'mirror', towards: 'left', lap: 3, target: 'front', keep: true,
    })
  })
})
