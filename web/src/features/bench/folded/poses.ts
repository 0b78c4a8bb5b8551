/** Angles of all folds for a place on the slider, and between two poses. Degrees, one a fold. */
export type Angles = readonly number[]

/** From 0, closed, to 1, flat: `sequence` runs from open to closed by stages of equal length. */
export function anglesAt(sequence: readonly Angles[], opened: number): Angles {
  const last = sequence.length - 1
  if (last < 1) return sequence[0] ?? []
  const at = (1 - Math.min(Math.max(opened, 0), 1)) * last
  const stage = Math.min(Math.floor(at), last - 1)
  return between(sequence[stage]!, sequence[stage + 1]!, at - stage)
}

export function between(from: Angles, to: Angles, share: number): Angles {
  return to.map((angle, i) => (from[i] ?? 0) + (angle - (from[i] ?? 0)) * share)
}

/** How far a pose is opened, as the slider shows it: 1 where nothing is folded. */
export function openness(sequence: readonly Angles[], angles: Angles): number {
  const shut = sequence.at(-1) ?? []
  const total = shut.reduce((sum, a) => sum + a, 0)
  if (!total) return 1
  const folded = angles.reduce((sum, a, i) => sum + (shut[i] ? Math.min(a, 180) : 0), 0)
  return 1 - folded / total
}
