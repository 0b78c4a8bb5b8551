/** Angles of all folds on the way from flat to closed, and between two poses. Degrees, one a fold. */
export type Angles = readonly number[]

/** From 0 to 1 along a path of stages of equal length. */
export function along(path: readonly Angles[], share: number): Angles {
  const last = path.length - 1
  if (last < 1) return path[0] ?? []
  const at = Math.min(Math.max(share, 0), 1) * last
  const stage = Math.min(Math.floor(at), last - 1)
  return between(path[stage]!, path[stage + 1]!, at - stage)
}

/** From 0, closed, to 1, flat: `sequence` runs from open to closed. */
export const anglesAt = (sequence: readonly Angles[], opened: number): Angles => along(sequence, 1 - opened)

export function between(from: Angles, to: Angles, share: number): Angles {
  return to.map((angle, i) => (from[i] ?? 0) + (angle - (from[i] ?? 0)) * share)
}

/** Where angles of the sequence are on the slider; 1 where they are none of it. */
export function placeOf(sequence: readonly Angles[], angles: Angles): number {
  const stage = sequence.findIndex((one) => one.every((a, i) => Math.abs(a - (angles[i] ?? 0)) < 1e-6))
  return sequence.length < 2 || stage < 0 ? 1 : 1 - stage / (sequence.length - 1)
}

/** At which stage of the sequence each fold is shut for good. */
function shutAt(sequence: readonly Angles[]): number[] {
  const closed = sequence.at(-1) ?? []
  const isOpen = (one: Angles, fold: number) => Math.abs((one[fold] ?? 0) - closed[fold]!) > 1e-6
  return closed.map((_, fold) => 1 + sequence.reduce((last, one, stage) => (isOpen(one, fold) ? stage : last), -1))
}

/**
 * The way on which one fold is shut, or opened where it is nearer to that: of those `over` or under it, the ones
 * that have to be shut before it, or opened before it, are so on the way, in the order of folding.
 */
export function turnOne(sequence: readonly Angles[], now: Angles, fold: number, over: readonly number[]): Angles[] {
  const [flat, closed] = [sequence[0] ?? [], sequence.at(-1) ?? []]
  const at = shutAt(sequence)
  const middle = ((flat[fold] ?? 0) + (closed[fold] ?? 0)) / 2
  const shuts = Math.abs((now[fold] ?? 0) - (flat[fold] ?? 0)) < Math.abs(middle - (flat[fold] ?? 0))
  const goal = shuts ? closed : flat
  const own = at[fold] ?? 0
  const moved = now.map((_, f) => f).filter((f) => f === fold || (over.includes(f) && (shuts ? at[f]! < own : at[f]! > own)))
  const stages = [...new Set(moved.map((f) => at[f]!))].sort((a, b) => (shuts ? a - b : b - a))
  const path = [now]
  for (const stage of stages) {
    const before = path.at(-1)!
    const next = before.map((a, f) => (moved.includes(f) && at[f] === stage ? (goal[f] ?? a) : a))
    if (next.some((a, f) => Math.abs(a - before[f]!) > 1e-6)) path.push(next)
  }
  return path
}

/** Where a card is: so far opened, or standing, which is reached from where it is half open. */
export interface Posture {
  opened: number
  standing: boolean
}

/** The way from one posture to another, on which no paper runs through other paper. */
export function route(
  sequence: readonly Angles[],
  half: number,
  stand: readonly Angles[],
  from: Posture,
  to: Posture,
): (share: number) => { angles: Angles; opened: number } {
  const legs: ((share: number) => { angles: Angles; opened: number })[] = []
  const slide = (a: number, b: number) => {
    if (Math.abs(a - b) > 1e-6) legs.push((s) => ({ angles: anglesAt(sequence, a + (b - a) * s), opened: a + (b - a) * s }))
  }
  const start = from.standing ? half : from.opened
  const end = to.standing ? half : to.opened
  if (from.standing && !to.standing) legs.push((s) => ({ angles: along(stand, 1 - s), opened: half }))
  if (!(from.standing && to.standing)) slide(start, end)
  if (to.standing) legs.push((s) => ({ angles: along(stand, from.standing ? 1 : s), opened: half }))
  if (!legs.length) return () => ({ angles: anglesAt(sequence, end), opened: end })
  return (share) => {
    const at = Math.min(Math.max(share, 0), 1) * legs.length
    const leg = Math.min(Math.floor(at), legs.length - 1)
    return legs[leg]!(at - leg)
  }
}
