/** What areas that can be picked are called, and what becomes of them, by the word of their handle. */
interface Words {
  group: string
  one: string
  taken: string
  left: string
  none: string
  /** Pixels from the middle to the rim of the ring by which a tiny one is hit. */
  ring: number
}
const WORDS: Record<string, Words> = {
  opening: { group: 'Openings', one: 'Opening', taken: 'filled', left: 'open', none: 'There is no opening.', ring: 13 },
  corner: { group: 'Corners', one: 'Corner', taken: 'rounded', left: 'left sharp', none: 'There is no sharp corner.', ring: 8 },
  part: { group: 'Parts to keep', one: 'Part', taken: 'stays', left: 'goes', none: 'There is no part.', ring: 13 },
}

export const wordsOf = (handle: string): Words => WORDS[handle] ?? WORDS.opening!
