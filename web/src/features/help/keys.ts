/** Keys, by the place in which they count. */
export interface Keys {
  where: string
  keys: readonly (readonly [keys: string, does: string])[]
}

export const KEYS: readonly Keys[] = [
  {
    where: 'Everywhere',
    keys: [
      ['?', 'keys and words of the trade'],
      ['Tab', 'to the next field or button'],
      ['Escape', 'close what is open'],
    ],
  },
  {
    where: 'Bench',
    keys: [
      ['/', 'add a step: type what you want, with its figures'],
      ['Ctrl+Z', 'undo'],
      ['Ctrl+Shift+Z', 'redo'],
      ['Ctrl+S', 'save at once'],
      ['F', 'see the whole piece'],
      ['Shift+F', 'see what is in hand, large'],
      ['I', 'see the other side'],
      ['L', 'lines alone'],
      [', and .', 'the loupe: the place before, the next one'],
    ],
  },
  {
    where: 'A thing in hand on the flat view',
    keys: [
      ['Arrows', 'move it a little'],
      ['Shift and arrows', 'move it by a whole step'],
      ['Alt while dragging', 'no snapping'],
      ['A digit while dragging', 'type the figure instead'],
      ['Enter in a figure', 'take it; Escape leaves it as it was'],
    ],
  },
  {
    where: 'The folded card',
    keys: [
      ['Arrows', 'turn it'],
      ['Space', 'play the folding'],
      ['1 to 9', 'open or shut one fold; pressing a panel does so, too'],
    ],
  },
  {
    where: 'A piece in hand on a sheet',
    keys: [
      ['Arrows', 'move it by 1 mm; with Shift 10, with Alt 0.1'],
      ['T', 'a quarter turn; with Shift the other way'],
      [', and .', 'turn it by a degree'],
      ['O', 'turn it over'],
      ['L', 'lock it, or unlock it'],
    ],
  },
]
