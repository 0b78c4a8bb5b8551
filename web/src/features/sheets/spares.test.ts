import { describe, expect, it } from 'vitest'
import { cardsInAll, parseSpares, sparesText } from './spares'

describe('spares', () => {
  it('are a number or a share', () => {
    expect(parseSpares('2')).toEqual({ spares: 2, spare_share: 0 })
    expect(parseSpares(' 10 % ')).toEqual({ spares: 0, spare_share: 0.1 })
    expect(parseSpares('2,5%')).toEqual({ spares: 0, spare_share: 0.025 })
    expect(parseSpares('')).toEqual({ spares: 0, spare_share: 0 })
  })
  it('are neither half a card nor words', () => {
    for (const text of ['2.5', '-1', 'two', '120 %', '3000', '1 2']) expect(parseSpares(text)).toBeNull()
  })
  it('are shown as they were typed', () => {
    for (const text of ['', '3', '10 %', '2.5 %']) expect(sparesText({ design: 1, ...parseSpares(text)! })).toBe(text)
  })
  it('are whole cards', () => {
    expect(cardsInAll({ design: 1, count: 12, spare_share: 0.1 })).toBe(14)
    expect(cardsInAll({ design: 1, count: 20, spare_share: 0.1 })).toBe(22)
    expect(cardsInAll({ design: 1, spares: 2 })).toBe(3)
  })
})
