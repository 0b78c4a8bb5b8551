/** Changes to a document, each a pure function to a new one. */
import type { Schemas } from '@/shared/api/client'
import type { Artwork, CardSize, DesignData, PieceData, StepData, Values } from '@/shared/api/document'
import type { StepKind } from '@/shared/catalogue'
import { withValues } from '@/shared/values'
import { ownEnvelope } from '@/shared/cardSize'
import { t } from '@/shared/words'

export function pieceOf(document: DesignData, piece: string): PieceData {
  const found = document.pieces.find((p) => p.id === piece) ?? document.pieces[0]
  if (!found) throw new Error('a design has at least one piece')
  return found
}

function withSteps(
  document: DesignData,
  piece: string,
  change: (steps: readonly StepData[]) => readonly StepData[],
): DesignData {
  const pieces = document.pieces.map((p) => (p.id === piece ? { ...p, steps: change(p.steps) } : p))
  return { ...document, pieces }
}

export function setValues(
  document: DesignData,
  piece: string,
  step: string,
  values: Values,
): DesignData {
  return withSteps(document, piece, (steps) =>
    steps.map((s) => (s.id === step ? withValues(s, values) : s)),
  )
}

/** For each step, by its key, values to set. */
export type Moves = Readonly<Record<string, Values>>

export function setAll(document: DesignData, piece: string, moves: Moves): DesignData {
  return Object.entries(moves).reduce((doc, [id, values]) => setValues(doc, piece, id, values), document)
}

export const LEAST_CARD = 10
export const MOST_CARD = 1000

/** The closed card's width or height as it is held: a size of its own from then on. */
export function setMeasure(document: DesignData, axis: 'x' | 'y', mm: number): DesignData {
  const { card } = document
  const side = (axis === 'x') === card.turned ? 'height' : 'width'
  return { ...document, card: { ...card, size: ownSize(card, { [side]: mm }) } }
}

/** A card's size with measures of its own, and an envelope of that size with its slack, where it goes in one. */
export function ownSize(card: DesignData['card'], measures: { readonly width?: number; readonly height?: number }): CardSize {
  const size = { ...card.size, ...measures, name: t('Own size') }
  return { ...size, envelope: size.envelope && ownEnvelope(size, card.slack) }
}

/** The document with a further piece made of a part that a split of another one cut off. */
export function addPart(
  document: DesignData,
  piece: string,
  part: Schemas['PartView'],
): [DesignData, string] {
  const name = t('{piece}, part {number}', { piece: pieceOf(document, piece).name, number: part.number })
  return addPiece(document, piece, { name, steps: [part.start] })
}

/** The document with a further piece of the same paper, given by its name and steps; a name that is
 * there already gets a number. */
function addPiece(document: DesignData, like: string, values: Values): [DesignData, string] {
  const taken = new Set(document.pieces.map((p) => p.id))
  const names = new Set(document.pieces.map((p) => p.name))
  let n = document.pieces.length + 1
  while (taken.has(`piece-${n}`)) n += 1
  let name = String(values.name)
  for (let i = 2; names.has(name); i += 1) name = `${String(values.name)} (${i})`
  const steps = (values.steps as Values[]).map((s, i) => ({ on: true, ...s, id: `s${i + 1}` }) as StepData)
  const made = { ...pieceOf(document, like), host: '', id: `piece-${n}`, name, steps }
  return [{ ...document, pieces: [...document.pieces, made] }, made.id]
}

/** A key that no step of the piece has. */
export function freshKey(steps: readonly StepData[]): string {
  const taken = new Set(steps.map((s) => s.id))
  let n = steps.length + 1
  while (taken.has(`s${n}`)) n += 1
  return `s${n}`
}

/** The document with a step put in at `index`, and the step's key. */
export function addStep(
  document: DesignData,
  piece: string,
  index: number,
  values: Values,
): [DesignData, string] {
  const taken = pieceOf(document, piece).steps
  const id = typeof values.id === 'string' && values.id && !taken.some((s) => s.id === values.id) ? values.id : freshKey(taken)
  const step = { on: true, ...values, id } as StepData
  const next = withSteps(document, piece, (steps) => [
    ...steps.slice(0, index),
    step,
    ...steps.slice(index),
  ])
  return [next, id]
}

export function duplicateStep(document: DesignData, piece: string, step: string): [DesignData, string] {
  const steps = pieceOf(document, piece).steps
  const index = steps.findIndex((s) => s.id === step)
  return addStep(document, piece, index + 1, { ...steps[index] })
}

export function removeStep(document: DesignData, piece: string, step: string): DesignData {
  return withSteps(document, piece, (steps) => steps.filter((s) => s.id !== step))
}

/** Moved by one place, or to `to`; the same document where there is no such place. */
export function moveStep(document: DesignData, piece: string, step: string, to: number): DesignData {
  const steps = pieceOf(document, piece).steps
  const from = steps.findIndex((s) => s.id === step)
  if (from < 0 || to < 0 || to >= steps.length || to === from) return document
  const rest = steps.filter((s) => s.id !== step)
  return withSteps(document, piece, () => [...rest.slice(0, to), steps[from]!, ...rest.slice(to)])
}

/** A mend's changes applied; also the key of the step that they touch last. */
export function applyChanges(
  document: DesignData,
  changes: readonly Schemas['Change'][],
): [DesignData, string] {
  let touched = ''
  for (const change of changes) {
    if (change.op === 'set') {
      document = setValues(document, change.piece, change.step, change.values)
      touched = change.step
    } else if (change.op === 'fold') {
      document = setFolding(document, change.values)
    } else if (change.op === 'size') {
      document = setSize(document, change.values)
    } else if (change.op === 'paper') {
      const { step, values } = change
      document = { ...document, papers: document.papers.map((p) => (p.id === step ? { ...p, ...values } : p)) }
    } else if (change.op === 'layer' || change.op === 'stock') {
      document = withMore(document, change.op === 'layer' ? 'pieces' : 'papers', change.values as { id: string })
    } else if (change.op === 'lay') {
      const { piece, values } = change
      document = { ...document, pieces: document.pieces.map((p) => (p.id === piece ? { ...p, ...values } : p)) }
    } else if (change.op === 'piece') {
      ;[document] = addPiece(document, change.piece, change.values)
    } else {
      const steps = pieceOf(document, change.piece).steps
      const at = steps.findIndex((s) => s.id === change.step)
      ;[document, touched] = addStep(document, change.piece, at < 0 ? steps.length : at, change.values)
    }
  }
  return [document, touched]
}

/** With a further piece or paper, unless there is one of that key. */
function withMore(document: DesignData, of: 'pieces' | 'papers', one: { readonly id: string }): DesignData {
  const some: readonly { readonly id: string }[] = document[of]
  return some.some((s) => s.id === one.id) ? document : { ...document, [of]: [...some, one] }
}

type About = Pick<Schemas['FindingView'], 'code' | 'piece' | 'step'>
const sameAbout = (a: About, b: About) => a.code === b.code && a.piece === b.piece && a.step === b.step

/** A finding set aside with the person's reason, in place of what was accepted of the same before. */
export function acceptFinding(document: DesignData, finding: About & Pick<Schemas['FindingView'], 'severity'>, reason: string): DesignData {
  const { code, piece, step, severity } = finding
  return { ...document, accepted: [...reopenFinding(document, finding).accepted, { code, piece, step, severity, reason }] }
}

/** A finding that counts again. */
export function reopenFinding(document: DesignData, finding: About): DesignData {
  return { ...document, accepted: document.accepted.filter((a) => !sameAbout(a, finding)) }
}

export function withArtwork(document: DesignData, key: string, artwork: Artwork): DesignData {
  return { ...document, artworks: { ...document.artworks, [key]: artwork } }
}

/** The start of a piece set anew: in place of the start it has, or before all its steps. */
export function setStart(
  document: DesignData,
  piece: string,
  values: Values,
  starts: (kind: string) => boolean,
): [DesignData, string] {
  const steps = pieceOf(document, piece).steps
  const old = steps.find((s) => starts(s.kind))
  if (!old) return addStep(document, piece, 0, values)
  const step = { ...values, id: old.id, on: true } as StepData
  return [withSteps(document, piece, (all) => all.map((s) => (s.id === old.id ? step : s))), old.id]
}

/** The document with a newer artwork in place of an earlier one, wherever steps name it. */
export function replaceArtwork(
  document: DesignData,
  earlier: string,
  key: string,
  artwork: Artwork,
): DesignData {
  const renamed = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(renamed)
    if (!value || typeof value !== 'object') return value
    return Object.fromEntries(
      Object.entries(value).map(([k, v]) => [k, k === 'ref' && v === earlier ? key : renamed(v)]),
    )
  }
  const artworks = { ...document.artworks, [key]: artwork }
  delete artworks[earlier]
  const pieces = document.pieces.map((p) => ({ ...p, steps: renamed(p.steps) as StepData[] }))
  return { ...document, artworks, pieces }
}

/** Values set on the card's size. */
export function setSize(document: DesignData, values: Values): DesignData {
  const { card } = document
  return { ...document, card: { ...card, size: withValues(card.size, values) } }
}

/** Values set on the card's way of folding, by their names. */
export function setFolding(document: DesignData, values: Values): DesignData {
  const { card } = document
  return { ...document, card: { ...card, folding: withValues(card.folding, values) } }
}

/** Where the figure becomes a card of panels: the place of the first step in use that does that; -1 if none does. */
export function mirrorAt(steps: readonly StepData[], kinds: readonly StepKind[]): number {
  const makes = new Set(kinds.filter((k) => k.makes_panels && !k.starts_with).map((k) => k.kind))
  return steps.findIndex((s) => s.on && makes.has(s.kind))
}
