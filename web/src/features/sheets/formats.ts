/** Formats in which paper is sold, upright, in mm; a roll has no height. */
import { decimal, t } from '@/shared/words'
export const FORMATS = [
  { name: 'A4', size: [210, 297] },
  { name: 'letter', size: [215.9, 279.4] },
  { name: '12 × 12 in', size: [304.8, 304.8] },
  { name: 'A3', size: [297, 420] },
  { name: '320 × 450', size: [320, 450] },
  { name: '12 × 18 in', size: [304.8, 457.2] },
  { name: t('roll, 300 mm wide'), size: [300, 0] },
  { name: t('roll, 600 mm wide'), size: [600, 0] },
] as const

/** The name of a size, upright or lying; the size itself where it has none. A height of 0 is a roll's. */
export function formatName(size: readonly [number, number]): string {
  const same = (a: number, b: number) => Math.abs(a - b) < 0.05
  const found = FORMATS.find(
    (f) => (same(f.size[0], size[0]) && same(f.size[1], size[1])) || (same(f.size[1], size[0]) && same(f.size[0], size[1])),
  )
  if (found) return found.name
  return size[1] ? `${size[0]} × ${size[1]} mm` : t('roll, {size} mm wide', { size: size[0] })
}

/** The size that a name or own measures in mm say, as "210 x 500" or "roll 420"; null where they say none. */
export function parseFormat(text: string): [number, number] | null {
  const known = FORMATS.find((f) => f.name === text)
  if (known) return [...known.size]
  const sizes = text.match(/^\s*(\d+(?:[.,]\d+)?)\s*[x×]\s*(\d+(?:[.,]\d+)?)\s*(?:mm)?\s*$/)
  const roll = text.match(/^\s*roll,?\s*(\d+(?:[.,]\d+)?)\s*(?:mm)?\s*(?:wide)?\s*$/i)
  if (roll) return Number(roll[1]!.replace(',', '.')) > 0 ? [Number(roll[1]!.replace(',', '.')), 0] : null
  if (!sizes) return null
  const [width, height] = [sizes[1]!, sizes[2]!].map((n) => Number(n.replace(',', '.')))
  return width! > 0 && height! > 0 ? [width!, height!] : null
}

/** Seconds as a person reads them: "8 s", "3 min 20 s". */
export function formatTime(seconds: number): string {
  if (seconds < 60) return `${seconds < 10 ? decimal(seconds.toFixed(1)) : Math.round(seconds)} s`
  const whole = Math.round(seconds)
  return `${Math.floor(whole / 60)} min ${whole % 60} s`
}

/** Where a line of flat x and y is after so many mm, and which way it runs there, in degrees. */
export function wayAt(flat: readonly number[], along: number): { x: number; y: number; turn: number } {
  let left = along
  let at = { x: flat[0] ?? 0, y: flat[1] ?? 0, turn: 0 }
  for (let i = 2; i + 1 < flat.length; i += 2) {
    const [dx, dy] = [flat[i]! - flat[i - 2]!, flat[i + 1]! - flat[i - 1]!]
    const size = Math.hypot(dx, dy)
    if (!size) continue
    const share = Math.min(1, left / size)
    at = { x: flat[i - 2]! + dx * share, y: flat[i - 1]! + dy * share, turn: (Math.atan2(dy, dx) * 180) / Math.PI }
    if (left <= size) break
    left -= size
  }
  return at
}

/** Flat x and y as an SVG's points; with y upwards from a height where that is given. */
export function pointsOf(flat: readonly number[], height?: number): string {
  const said: string[] = []
  for (let i = 0; i + 1 < flat.length; i += 2) {
    said.push(`${flat[i]},${height === undefined ? flat[i + 1] : Math.round((height - flat[i + 1]!) * 100) / 100}`)
  }
  return said.join(' ')
}

const LARGEST = 7
const SMALLEST = 2.4
/** Of a letter's size: how wide it is on average. */
const LETTER = 0.56
/** A piece's name within its width, both in mm: as large as it fits, and cut short where it would be too small to read;
 * `half` is half of how wide it is. */
export function fittedName(name: string, width: number): { text: string; size: number; half: number } {
  const room = 0.92 * width
  const size = Math.min(LARGEST, width / 11, room / (LETTER * Math.max(name.length, 1)))
  const sized = (text: string, of: number) => ({ text, size: of, half: (LETTER * of * text.length) / 2 })
  if (size >= SMALLEST) return sized(name, size)
  const letters = Math.floor(room / (LETTER * SMALLEST))
  return sized(letters < name.length ? `${name.slice(0, Math.max(letters - 1, 1)).trimEnd()}…` : name, SMALLEST)
}
