/** The design document as the browser handles it: steps are opaque but for their key and kind. */
import type { Schemas } from './client'

export type Unit = 'mm' | 'in'
export type Envelope = Required<Schemas['Envelope']>
export type CardSize = Required<Omit<Schemas['CardSize'], 'envelope'>> & { envelope: Envelope | null }
export type Paper = Required<Schemas['Paper']>
export type OwnPanel = Required<Schemas['OwnPanel']>
export type Folding = Required<Omit<Schemas['Folding'], 'panels'>> & { panels: readonly OwnPanel[] }

export interface StepData {
  readonly id: string
  readonly kind: string
  readonly on: boolean
  readonly [field: string]: unknown
}

export interface PieceData {
  readonly id: string
  readonly name: string
  readonly paper: string
  readonly steps: readonly StepData[]
  readonly [field: string]: unknown
}

export interface Layer {
  readonly name: string
  readonly colour: string
  readonly path: string
  readonly rule: 'nonzero' | 'evenodd'
}

/** Layers from the lowest to the topmost; scale is mm per unit of their paths. */
export interface Artwork {
  readonly name: string
  readonly scale: number
  readonly layers: readonly Layer[]
}

export interface DesignData {
  readonly name: string
  readonly units: Unit
  readonly card: {
    readonly size: CardSize
    readonly turned: boolean
    readonly folding: Folding
    readonly slack: number
  }
  readonly papers: readonly Paper[]
  readonly artworks: Readonly<Record<string, Artwork>>
  readonly pieces: readonly PieceData[]
  readonly [field: string]: unknown
}
