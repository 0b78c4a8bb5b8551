/** Keys, by the place in which they count. */
import { t } from '@/shared/words'
export interface Keys {
  where: string
  keys: readonly (readonly [keys: string, does: string])[]
}

export const KEYS: readonly Keys[] = [
  {
    where: t('Everywhere'),
    keys: [
      ['?', t('keys and words of the trade')],
      [t('Tab'), t('to the next field or button')],
      [t('Escape'), t('close what is open')],
    ],
  },
  {
    where: t('Bench'),
    keys: [
      ['/', t('add a step: type what you want, with its figures')],
      [t('Ctrl+Z'), t('undo')],
      [t('Ctrl+Shift+Z'), t('redo')],
      [t('Ctrl+S'), t('save at once')],
      ['F', t('see the whole piece')],
      [t('Shift+F'), t('see what is in hand, large')],
      ['I', t('see the other side')],
      ['L', t('lines alone')],
      [t(', and .'), t('the loupe: the place before, the next one')],
    ],
  },
  {
    where: t('A thing in hand on the flat view'),
    keys: [
      [t('Arrows'), t('move it a little')],
      [t('Shift and arrows'), t('move it by a whole step')],
      [t('Alt while dragging'), t('no snapping')],
      [t('A digit while dragging'), t('type the figure instead')],
      [t('Enter in a figure'), t('take it; Escape leaves it as it was')],
    ],
  },
  {
    where: t('The folded card'),
    keys: [
      [t('Arrows'), t('turn it')],
      [t('Space'), t('play the folding')],
      ['1 to 9', t('open or shut one fold; pressing a panel does so, too')],
    ],
  },
  {
    where: t('A piece in hand on a sheet'),
    keys: [
      [t('Arrows'), t('move it by 1 mm; with Shift 10, with Alt 0.1')],
      ['T', t('a quarter turn; with Shift the other way')],
      [t(', and .'), t('turn it by a degree')],
      ['O', t('turn it over')],
      ['L', t('lock it, or unlock it')],
    ],
  },
]
