/** Words of the trade, each with a small picture: 64 wide, 44 high. */
import { t } from '@/shared/words'
export interface Word {
  word: string
  also?: string
  says: string
  /** Paper, cut lines, folds, what is meant, and a second paper. */
  paper?: string
  second?: string
  cut?: string
  fold?: string
  meant?: string
}

const CARD = 'M10 6H54V38H10Z'
const MIDDLE = 'M32 6V38'

export const WORDS: readonly Word[] = [
  { word: t('Base'), says: t('The piece that is folded and carries all others.'), paper: CARD, fold: MIDDLE },
  { word: t('Panel'), says: t('What lies between two folds or between a fold and an edge: front, back, flap.'), paper: CARD, fold: MIDDLE, meant: 'M33 7H53V37H33Z' },
  { word: t('Closed size'), says: t('The card as it goes into its envelope. All sizes here are closed sizes.'), paper: 'M20 6H44V38H20Z', meant: 'M20 41H44M20 39.5V42.5M44 39.5V42.5M47 6V38M45.5 6H48.5M45.5 38H48.5' },
  { word: t('Score line'), also: t('crease'), says: t('A line pressed into the paper along which it folds cleanly.'), paper: CARD, fold: MIDDLE },
  { word: t('Valley'), says: t('A fold whose sides come up towards you, like a valley.'), paper: 'M6 12L32 32L58 12V20L32 40L6 20Z' },
  { word: t('Mountain'), says: t('A fold whose sides go down away from you, like a ridge.'), paper: 'M6 32L32 12L58 32V40L32 20L6 40Z' },
  { word: t('Perforation'), says: t('Short cuts with paper left between: for folds in thick board, or to tear along.'), paper: CARD, cut: 'M32 7V11M32 14V18M32 21V25M32 28V32M32 35V38' },
  { word: t('Outline'), says: t('Where the piece is cut all round.'), paper: 'M32 38C8 24 12 8 24 8C29 8 32 12 32 15C32 12 35 8 40 8C52 8 56 24 32 38Z', meant: 'M32 38C8 24 12 8 24 8C29 8 32 12 32 15C32 12 35 8 40 8C52 8 56 24 32 38Z' },
  { word: t('Mirror'), says: t('The outline and its image on the other side of the fold become one piece.'), paper: 'M32 14C32 10 28 6 22 6C10 6 8 24 30 38H34C56 24 54 6 42 6C36 6 32 10 32 14Z', fold: MIDDLE },
  { word: t('Lap'), says: t('How far the two mirrored halves run into each other at the fold. More lap, longer hinge.'), paper: 'M22 8A14 14 0 1 0 22 36A14 14 0 0 0 32 31A14 14 0 1 0 42 8A14 14 0 0 0 32 13A14 14 0 0 0 22 8Z', fold: 'M32 13V31', meant: 'M28 40H36M28 38V42M36 38V42' },
  { word: t('Hinge'), says: t('What of the fold has paper on both sides: it holds the card together.'), paper: 'M22 8A14 14 0 1 0 22 36A14 14 0 0 0 32 31A14 14 0 1 0 42 8A14 14 0 0 0 32 13A14 14 0 0 0 22 8Z', meant: 'M32 13V31' },
  { word: t('Weld'), says: t('Two outlines become one.'), paper: 'M10 14H34V38H10Z', second: 'M28 18A11 11 0 1 0 44 7A11 11 0 0 0 28 18Z' },
  { word: t('Slice'), says: t('A piece is cut along a straight line, and one side is kept.'), paper: 'M12 24A20 18 0 0 1 52 24Z', cut: 'M6 24H58', fold: 'M12 24A20 18 0 0 0 52 24' },
  { word: t('Window'), also: t('aperture'), says: t('An opening cut into a panel.'), paper: 'M10 6H54V38H10ZM36 14V30H50V14Z', fold: MIDDLE, cut: 'M36 14H50V30H36Z' },
  { word: t('Grille'), says: t('Strips left standing across a window.'), paper: 'M18 4H46V40H18ZM22 8V14H42V8ZM22 19V25H42V19ZM22 30V36H42V30Z', cut: 'M22 8H42V14H22ZM22 19H42V25H22ZM22 30H42V36H22Z' },
  { word: t('Bridge'), says: t('A little paper that keeps an island in place, as in a stencil.'), paper: 'M14 4H50V40H14ZM32 10A12 12 0 0 0 20.5 20H27A6 6 0 0 1 37 20H43.500A12 12 0 0 0 32 10ZM20.500 24A12 12 0 0 0 43.500 24H37A6 6 0 0 1 27 24Z', meant: 'M20.500 20V24H27V20ZM37 20V24H43.500V20Z' },
  { word: t('Overhang'), says: t('A figure welded to the open edge, standing out beyond it.'), paper: 'M10 8H40V36H10Z', second: 'M36 14C44 8 56 14 56 22C56 30 44 36 36 30Z' },
  { word: t('Mat'), says: t('A layer on a panel, a margin smaller all round.'), paper: 'M16 4H48V40H16Z', second: 'M20 8H44V36H20Z' },
  { word: t('Insert'), says: t('A folded sheet inside, to write on.'), paper: CARD, second: 'M13 9H51V35H13Z', fold: MIDDLE },
  { word: t('Backing'), says: t('Paper or vellum behind a window.'), paper: 'M18 4H46V40H18ZM25 12V30H39V12Z', second: 'M25 12H39V30H25Z', cut: 'M25 12H39V30H25Z' },
  { word: t('Band'), says: t('A strip round the closed card that holds it shut.'), paper: 'M18 4H46V40H18Z', second: 'M15 18H49V27H15Z' },
  { word: t('Grain'), says: t('The way the fibres run. Folds along it are clean, folds across it crack.'), paper: CARD, meant: 'M14 12H50M14 18H50M14 24H50M14 30H50' },
  { word: t('Surround'), says: t('The outline of everything in a drawing, grown outwards by a margin.'), paper: 'M32 4A18 18 0 1 0 32 40A18 18 0 1 0 32 4Z', second: 'M32 10L37 19L46 20L39 27L41 36L32 31L23 36L25 27L18 20L27 19Z' },
  { word: t('Set-up'), says: t('How a sheet lies in the machine. Scores from the other side need it turned over: a second set-up.'), paper: 'M18 6H46V38H18Z', cut: 'M22 10A1.500 1.500 0 1 0 22.010 10ZM42 10A1.500 1.500 0 1 0 42.010 10ZM22 34A1.500 1.500 0 1 0 22.010 34Z' },
]
