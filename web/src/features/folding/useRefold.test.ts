import { describe, expect, it } from 'vitest'
import { inWords } from './useRefold'

const change = (what: 'placed' | 'off') => ({ piece: 'base', step: 's', title: 'Window', what, why: '' })

describe('inWords', () => {
  it('says what was kept, placed anew and switched off', () => {
    expect(inWords({ kept: 4, changes: [] })).toBe('4 steps kept')
    expect(inWords({ kept: 1, changes: [change('placed')] })).toBe('1 step kept, 1 of them placed anew')
    expect(inWords({ kept: 3, changes: [change('placed'), change('off')] })).toBe(
      '3 steps kept, 1 of them placed anew, 1 switched off',
    )
  })
})
