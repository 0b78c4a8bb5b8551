import { expect, it } from 'vitest'
import { isSame } from './isSame'

it('compares by content, whatever the order of keys', () => {
  expect(isSame({ a: 1, b: [1, { c: null }] }, { b: [1, { c: null }], a: 1 })).toBe(true)
  expect(isSame({ a: 1 }, { a: 1, b: undefined })).toBe(false)
  expect(isSame([1, 2], [2, 1])).toBe(false)
  expect(isSame([1], { 0: 1 })).toBe(false)
  expect(isSame(null, {})).toBe(false)
})
