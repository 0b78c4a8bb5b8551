/** What areas that can be picked are called, and what becomes of them, by the word of their handle. */
import { t } from '@/shared/words'
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
  opening: { group: t('Openings'), one: t('Opening'), taken: t('filled'), left: t('open'), none: t('There is no opening.'), ring: 13 },
  corner: { group: t('Corners'), one: t('Corner'), taken: t('rounded'), left: t('left sharp'), none: t('There is no sharp corner.'), ring: 8 },
  part: { group: t('Parts to keep'), one: t('Part'), taken: t('stays'), left: t('goes'), none: t('There is no part.'), ring: 13 },
}

export const wordsOf = (handle: string): Words => WORDS[handle] ?? WORDS.opening!
