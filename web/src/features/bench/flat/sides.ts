/** Where panels end along an axis, in order: at a fold, or at either edge of the spine around it. */
export function sidesOf(folds: readonly { at: number; apart: number }[]): number[] {
  const sides = folds.flatMap(({ at, apart }) => (apart > 0 ? [at - apart / 2, at + apart / 2] : [at]))
  return sides.sort((a, b) => a - b)
}
