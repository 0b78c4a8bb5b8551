import { expect, it } from 'vitest'
import { checksInWords } from './checks'

it('says what there is, and that nothing is', () => {
  expect(checksInWords({ errors: 1, warnings: 2, notes: 0, accepted: 0 })).toBe('1 error, 2 warnings')
  expect(checksInWords({ errors: 0, warnings: 0, notes: 1, accepted: 0 })).toBe('1 note')
  expect(checksInWords({ errors: 0, warnings: 0, notes: 0, accepted: 0 })).toBe('all checks passed')
  expect(checksInWords({ errors: 0, warnings: 0, notes: 0, accepted: 3 })).toBe('all checks passed, 3 accepted')
})
