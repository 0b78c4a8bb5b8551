/** The design document as the browser handles it, made from the core's own schema. */
import type { Schemas } from './client'

export type DesignData = Schemas['Design']
export type PieceData = DesignData['pieces'][number]
/** One of all kinds of steps, told apart by `kind`. */
export type StepData = PieceData['steps'][number]
export type Unit = DesignData['units']
export type CardSize = Schemas['CardSize']
export type Envelope = Schemas['Envelope']
export type Paper = Schemas['Paper']
export type Folding = Schemas['Folding']
export type OwnPanel = Schemas['OwnPanel']
export type Artwork = Schemas['Artwork']

/** Values by their names, whatever they are of. */
export type Values = Readonly<Record<string, unknown>>
