import { expect, it } from 'vitest'
import { valueAt, withValues } from './values'

it('sets values by their names, and leaves the rest as the same objects', () => {
  const step = { dx: 1, outline: { width: 2, height: 3 }, angles: [null, 5], other: { a: 1 } }
  const next = withValues(step, { dx: 4, 'outline.width': 9, 'angles.3': 7 })
  expect(next).toEqual({ dx: 4, outline: { width: 9, height: 3 }, angles: [null, 5, null, 7], other: { a: 1 } })
  expect(next.other).toBe(step.other)
  expect(step.outline.width).toBe(2)
  expect(withValues({ panels: [{ width: 1 }, { width: 2 }] }, { 'panels.1.width': 3 })).toEqual({
    panels: [{ width: 1 }, { width: 3 }],
  })
})

it('looks values up by the same names', () => {
  expect(valueAt({ panels: [{ width: 1 }] }, 'panels.0.width')).toBe(1)
  expect(valueAt({ outline: null }, 'outline.width')).toBeUndefined()
  expect(valueAt({}, 'a.b.c')).toBeUndefined()
})
