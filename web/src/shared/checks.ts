/** What the checks of a card counted, in words. */
import { t } from '@/shared/words'
interface Counts {
  readonly errors: number
  readonly warnings: number
  readonly notes: number
  readonly accepted: number
}

/** "2 warnings, 1 note, 3 accepted"; that all passed where nothing is open. */
export function checksInWords({ errors, warnings, notes, accepted }: Counts): string {
  const told = [
    errors && t('{n} error | {n} errors', errors),
    warnings && t('{n} warning | {n} warnings', warnings),
    notes && t('{n} note | {n} notes', notes),
  ].filter(Boolean)
  const open = told.join(', ') || t('all checks passed')
  return accepted ? `${open}, ${t('{n} accepted', { n: accepted })}` : open
}
