/** What the checks of a card counted, in words. */
import { t } from '@/shared/words'
interface Counts {
  readonly errors: number
  readonly warnings: number
  readonly notes: number
}

/** "2 warnings, 1 note"; that all passed where nothing was found. */
export function checksInWords({ errors, warnings, notes }: Counts): string {
  const told = [
    errors && t('{n} error | {n} errors', errors),
    warnings && t('{n} warning | {n} warnings', warnings),
    notes && t('{n} note | {n} notes', notes),
  ].filter(Boolean)
  return told.join(', ') || t('all checks passed')
}
