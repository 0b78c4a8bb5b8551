/** A figure on the flat view that somebody types over: where it stands, and what takes the new one. */
export interface Typed {
  x: number
  y: number
  value: number
  label: string
  take: (mm: number) => void
  /** What was typed already, while it was dragged. */
  begun?: string
  /** It is in degrees, not in mm. */
  degrees?: boolean
}
