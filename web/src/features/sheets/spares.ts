/** Spares of a design in a job: a number of cards besides, or a share of those that are wanted. */
import type { Schemas } from '@/shared/api/client'
import { decimal } from '@/shared/words'

type Wanted = Schemas['JobDesign']
const MOST = 2000

/** What somebody typed, as “2” or “10 %”; nothing is none. Null for what is neither. */
export function parseSpares(text: string): { spares: number; spare_share: number } | null {
  const match = /^(\d+(?:[.,]\d+)?)\s*(%?)$/.exec(text.trim() || '0')
  if (!match) return null
  const value = Number(match[1]!.replace(',', '.'))
  if (match[2]) return value <= 100 ? { spares: 0, spare_share: value / 100 } : null
  return Number.isInteger(value) && value <= MOST ? { spares: value, spare_share: 0 } : null
}

/** As it was typed; nothing where there are none. */
export function sparesText({ spares, spare_share }: Wanted): string {
  if (spare_share) return `${decimal(String(Number((100 * spare_share).toFixed(2))))} %`
  return spares ? `${spares}` : ''
}

/** Cards with their spares; a share is rounded up. */
export function cardsInAll({ count, spares, spare_share }: Wanted): number {
  return (count ?? 1) + (spares ?? 0) + Math.ceil((count ?? 1) * (spare_share ?? 0) - 1e-9)
}
