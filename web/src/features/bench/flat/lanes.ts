/** Figures along a line that would stand over each other: each in the first lane in which it is free. */

/** By the order of the labels: 0 is the line's own lane, where a label has room between the ends of its line; the others
 * follow outwards. `null` where no lane is free. */
export function lanesOf(labels: readonly { middle: number; half: number; room: number }[], most: number): (number | null)[] {
  const ends: [number, number][][] = Array.from({ length: most }, () => [])
  return labels.map(({ middle, half, room }) => {
    const least = room < 2 * half ? 1 : 0
    const lane = ends.findIndex((taken, n) => n >= least && taken.every(([low, high]) => middle + half <= low || middle - half >= high))
    if (lane < 0) return null
    ends[lane]!.push([middle - half, middle + half])
    return lane
  })
}
