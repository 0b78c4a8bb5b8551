import { describe, expect, it } from 'vitest'
import table from '../../../../tests/golden/lengths.json'
import type { Unit } from '@/shared/api/document'
import { LengthError, formatLength, nudge, parseLength } from './lengths'

describe('lengths, by the table that the core is held to as well', () => {
  it.each(table.values as [string, Unit, number][])('reads %s in %s', (text, unit, value) => {
    expect(parseLength(text, unit)).toBeCloseTo(value, 9)
  })

  it.each(table.errors as [string, Unit, string][])('refuses %s', (text, unit, message) => {
    expect(() => parseLength(text, unit)).toThrow(LengthError)
    expect(() => parseLength(text, unit)).toThrow(message)
  })

  it('writes them without needless zeros', () => {
    expect(formatLength(108.5, 'mm')).toBe('108.5 mm')
    expect(formatLength(139.7, 'in')).toBe('5.5 in')
    expect(formatLength(-0.001, 'mm')).toBe('0 mm')
    expect(formatLength(130.175, 'mm')).toBe('130.18 mm')
    expect(formatLength(100, 'mm', false)).toBe('100')
  })

  it('nudges by a tenth and a whole mm, by a 64th and a 16th of an inch', () => {
    expect(nudge('mm', false)).toBe(0.1)
    expect(nudge('mm', true)).toBe(1)
    expect(nudge('in', false)).toBeCloseTo(25.4 / 64)
    expect(nudge('in', true)).toBeCloseTo(25.4 / 16)
  })
})
