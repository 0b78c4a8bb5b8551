/** Figures with their unit, for reading. */
import type { Unit } from '@/shared/api/document'
import { decimal, inRow } from '@/shared/words'
import { formatLength } from './lengths'

export function formatFigure(value: number, kind: string, unit: Unit): string {
  if (kind === 'mm') return formatLength(value, unit)
  if (kind === 'deg') return `${trim(value, 2)}°`
  if (kind === 'mm2') {
    return unit === 'in' ? `${trim(value / 645.16, 3)} in²` : `${trim(value, 1)} mm²`
  }
  if (kind === 'percent') return `${trim(value, 1)} %`
  if (kind === 'g') return `${trim(value, 2)} g`
  return trim(value, 3)
}

/** Several measures of one thing: "108.5 × 110 mm". */
export function formatMeasures(values: readonly number[], kind: string, unit: Unit): string {
  if (kind !== 'mm' || values.length < 2) return inRow(values.map((v) => formatFigure(v, kind, unit)))
  return `${values.map((v) => formatLength(v, unit, false)).join(' × ')} ${unit}`
}

function trim(value: number, digits: number): string {
  const text = value.toFixed(digits)
  return decimal(text.includes('.') ? text.replace(/\.?0+$/, '') : text)
}
