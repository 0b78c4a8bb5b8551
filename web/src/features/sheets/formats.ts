/** Formats in which paper is sold, upright, in mm. */
export const FORMATS = [
  { name: 'A4', size: [210, 297] },
  { name: 'letter', size: [215.9, 279.4] },
  { name: '12 × 12 in', size: [304.8, 304.8] },
  { name: 'A3', size: [297, 420] },
  { name: '320 × 450', size: [320, 450] },
  { name: '12 × 18 in', size: [304.8, 457.2] },
] as const

/** The name of a size, upright or lying; the size itself where it has none. */
export function formatName(size: readonly [number, number]): string {
  const same = (a: number, b: number) => Math.abs(a - b) < 0.05
  const found = FORMATS.find(
    (f) => (same(f.size[0], size[0]) && same(f.size[1], size[1])) || (same(f.size[1], size[0]) && same(f.size[0], size[1])),
  )
  return found?.name ?? `${size[0]} × ${size[1]} mm`
}

/** The size that a name or own measures in mm say, as "210 x 500"; null where they say none. */
export function parseFormat(text: string): [number, number] | null {
  const known = FORMATS.find((f) => f.name === text)
  if (known) return [...known.size]
  const sizes = text.match(/^\s*(\d+(?:[.,]\d+)?)\s*[x×]\s*(\d+(?:[.,]\d+)?)\s*(?:mm)?\s*$/)
  if (!sizes) return null
  const [width, height] = [sizes[1]!, sizes[2]!].map((n) => Number(n.replace(',', '.')))
  return width! > 0 && height! > 0 ? [width!, height!] : null
}

/** Seconds as a person reads them: "8 s", "3 min 20 s". */
export function formatTime(seconds: number): string {
  if (seconds < 60) return `${seconds < 10 ? seconds.toFixed(1) : Math.round(seconds)} s`
  const whole = Math.round(seconds)
  return `${Math.floor(whole / 60)} min ${whole % 60} s`
}

/** Flat x and y as an SVG's points; with y upwards from a height where that is given. */
export function pointsOf(flat: readonly number[], height?: number): string {
  const said: string[] = []
  for (let i = 0; i + 1 < flat.length; i += 2) {
    said.push(`${flat[i]},${height === undefined ? flat[i + 1] : Math.round((height - flat[i + 1]!) * 100) / 100}`)
  }
  return said.join(' ')
}
