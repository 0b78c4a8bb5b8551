/** The creases of an own way of folding as handles on the flat view: dragged, they set the panels. */
import type { Schemas } from '@/shared/api/client'
import type { DesignData, OwnPanel } from '@/shared/api/document'

type Handle = Schemas['HandleView']
const NARROWEST = 1

/** A handle at the end of each panel; none for other ways of folding. */
export function ownHandles(document: DesignData): Handle[] {
  const { folding } = document.card
  if (folding.kind !== 'own') return []
  let stop = 0
  return folding.panels.map((panel, i) => {
    const origin = stop
    stop += panel.width
    return {
      shape: 'line',
      field: `panel-${i + 1}`,
      value: panel.width,
      axis: folding.creases === 'level' ? 'y' : 'x',
      at: stop,
      origin,
      factor: 1,
      least: NARROWEST,
      field_y: '',
      value_y: 0,
      factor_y: 1,
      least_y: null,
      box: [0, 0, 0, 0],
      outline: '',
      candidates: [],
      picked_by: '',
      word: `panel ${i + 1}`,
      centre: [0, 0],
      sizing: null,
      turn: null,
    }
  })
}

export function ownWidths(document: DesignData): Record<string, number> {
  return Object.fromEntries(document.card.folding.panels.map((p, i) => [`panel-${i + 1}`, p.width]))
}

/** The document with widths set by the names of their handles. */
export function withWidths(document: DesignData, widths: Readonly<Record<string, number>>): DesignData {
  const { card } = document
  const panels: OwnPanel[] = card.folding.panels.map((p, i) => ({ ...p, width: widths[`panel-${i + 1}`] ?? p.width }))
  return { ...document, card: { ...card, folding: { ...card.folding, panels } } }
}
