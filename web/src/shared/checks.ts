/** What the checks of a card counted, in words. */
interface Counts {
  readonly errors: number
  readonly warnings: number
  readonly notes: number
}

/** "2 warnings, 1 note"; that all passed where nothing was found. */
export function checksInWords({ errors, warnings, notes }: Counts): string {
  const counts = [[errors, 'error'], [warnings, 'warning'], [notes, 'note']] as const
  const told = counts.flatMap(([n, word]) => (n ? [`${n} ${word}${n === 1 ? '' : 's'}`] : []))
  return told.join(', ') || 'all checks passed'
}
