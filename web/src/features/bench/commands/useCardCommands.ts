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
    const piece = selection.pieceId.value
    let made = ''
    design.change((now) => parts.reduce((next, part) => ([next, made] = edits.addPart(next, piece, part))[0], now))
    if (parts.length === 1) selection.goTo(made)
    else tell(t('{n} pieces were made. Undo takes them back.', { n: parts.length }))
  }

  function rename(name: string) {
    if (name.trim()) design.change((now) => ({ ...now, name: name.trim() }))
  }
  function setUnit(units: Unit) {
    design.change((now) => ({ ...now, units }))
  }
  /** The closed card's measure, typed on a dimension line. */
  function setMeasure(axis: 'x' | 'y', mm: number) {
    if (mm < edits.LEAST_CARD || mm > edits.MOST_CARD) return tell(t('A card is between 10 and 1000 mm wide and high.'), 'warning')
    design.change((now) => edits.setMeasure(now, axis, mm))
  }
  /** The envelope that the card is meant for. */
  function setEnvelope(envelope: Envelope) {
    design.change((now) => edits.setSize(now, { envelope }))
  }
  function setFolding(values: Values) {
    design.change((now) => edits.setFolding(now, values))
  }
  function previewFolding(values: Values) {
    design.preview((now) => edits.setFolding(now, values))
  }

  function acceptFinding(finding: Schemas['FindingView'], reason: string) {
    design.change((now) => edits.acceptFinding(now, finding, reason))
  }
  function reopenFinding(finding: Schemas['FindingView']) {
    design.change((now) => edits.reopenFinding(now, finding))
  }

  return { acceptFinding, reopenFinding, makePieces, rename, setUnit, setMeasure, setEnvelope, setFolding, previewFolding }
}
