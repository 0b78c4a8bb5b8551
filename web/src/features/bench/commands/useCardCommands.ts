/** What can be done with the card and its pieces. */
import type { Schemas } from '@/shared/api/client'
import type { Envelope, Unit, Values } from '@/shared/api/document'
import { tell } from '@/shared/messages'
import { t } from '@/shared/words'
import type { Changing } from '../state/useDocument'
import type { Selection } from '../state/useSelection'
import * as edits from './edits'

export function useCardCommands(design: Changing, selection: Selection) {
  const { document } = design

  /** Parts that the split in hand left over, each as a piece of its own. */
  function makePieces(parts: readonly Schemas['PartView'][]) {
    if (!document.value || !parts.length) return
    let [next, made] = [document.value, '']
    for (const part of parts) [next, made] = edits.addPart(next, selection.pieceId.value, part)
    design.change(next)
    if (parts.length === 1) selection.goTo(made)
    else tell(t('{n} pieces were made. Undo takes them back.', { n: parts.length }))
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
    if (mm < edits.LEAST_CARD || mm > edits.MOST_CARD) return tell(t('A card is between 10 and 1000 mm wide and high.'), 'warning')
    design.change(edits.setMeasure(document.value, axis, mm))
  }
  /** The envelope that the card is meant for. */
  function setEnvelope(envelope: Envelope) {
    if (document.value) design.change(edits.setSize(document.value, { envelope }))
  }
  function setFolding(values: Values) {
    if (document.value) design.change(edits.setFolding(document.value, values))
  }
  function previewFolding(values: Values) {
    if (document.value) design.preview(edits.setFolding(document.value, values))
  }

  return { makePieces, rename, setUnit, setMeasure, setEnvelope, setFolding, previewFolding }
}
