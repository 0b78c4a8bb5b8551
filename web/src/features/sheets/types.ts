/** What runs find, as the core's `shown` modules write it. */
import type { Schemas } from '@/shared/api/client'

export type Job = Schemas['OpenJob']
export type Layout = Schemas['KeptJob']
export type LaidSheet = Schemas['KeptSheet']
export type LaidPiece = Schemas['KeptPiece']
export type RunView = Schemas['RunView']
export type Conditions = Schemas['Conditions']

/** A pass: its strokes as flat lists of x and y, y downwards. */
export interface Pass {
  name: string
  operation: string
  group: string
  tool: string
  length_mm: number
  lifts: number
  time_s: number
  strokes: number[][]
}
export interface SetUp {
  inside: boolean
  /** How the sheet is turned over for the second set-up, in words. */
  turnover: string
  width: number
  height: number
  passes: Pass[]
}
export interface Meant {
  design: string
  piece: string
  number: number
  deviation_mm?: number
  grade?: 'good' | 'fair' | 'off'
}
export interface Loose {
  area_mm2: number
  bounds_mm: [number, number, number, number]
  contours: number
  at_s: number
  meant: Meant | null
}
export interface Joined {
  gap_mm: number
  at: [number, number]
  bounds_mm: [number, number, number, number]
  meant: Meant | null
}
export interface Fault {
  code: string
  message: string
  at: [number, number] | null
  at_s: number | null
}
export interface ToolRun {
  tool: string
  cuts: boolean
  from_s: number
  to_s: number
  places: number[]
}
/** What became of a file; places have y upwards from the sheet's foot. */
export interface CutResult {
  loose: Loose[]
  joined: Joined[]
  faults: Fault[]
  passes: { tool: string; length_mm: number; lifts: number; time_s: number }[]
  time_s: number
  language: string
  left_out: { line: number; reason: string }[]
  size: [number, number]
  worst_mm: number
  missing: number
  runs: ToolRun[]
  outlines: string[]
  file: string
}
