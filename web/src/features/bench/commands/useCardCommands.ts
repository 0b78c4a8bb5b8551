/** What can be done with the card and its pieces. */
import type { Schemas } from '@/shared/api/client'
import type { Unit, Values } from '@/shared/api/document'
import { tell } from '@/shared/messages'
import type { Changing } from '../state/useDocument'
import type { Selection } from '../state/useSelection'
import * as edits from './edits'

export function useCardCommands(design: Changing, selection: Selection) {
  const { document } = design

  /** A part that the split in hand left over, as a piece of its own. */
  function makePiece(part: Schemas['PartView']) {
    if (!document.value) return
    const [next, made] = edits.addPart(document.value, selection.pieceId.value, part)
    design.change(next)
    selection.goTo(made)
  }
  function removePiece(id: string) {
    if (!document.value) return
    const next = edits.removePiece(document.value, id)
    selection.goTo(next.pieces[0]!.id)
    design.change(next)
  }
  function renamePiece(id: string, name: string) {
    if (document.value) design.change(edits.renamePiece(document.value, id, name))
  }

  function rename(name: string) {
    if (document.value && name.trim()) design.change({ ...document.value, name: name.trim() })
  }
  function setUnit(units: Unit) {
    if (document.value) design.change({ ...document.value, units })
  }
  /** The closed card's measure, typed on a dimension line. */
  function setMeasure(axis: 'x' | 'y', mm: number) {
    if (!document.value) return
    if (mm < edits.LEAST_CARD || mm > edits.MOST_CARD) return tell('A card is between 10 and 1000 mm wide and high.', 'warning')
    design.change(edits.setMeasure(document.value, axis, mm))
  }
  function setFolding(values: Values) {
    if (document.value) design.change(edits.setFolding(document.value, values))
  }
  function previewFolding(values: Values) {
    if (document.value) design.preview(edits.setFolding(document.value, values))
  }

  return { makePiece, removePiece, renamePiece, rename, setUnit, setMeasure, setFolding, previewFolding }
}
