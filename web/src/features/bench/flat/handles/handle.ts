/** Handles as the server describes them, and how a place makes a value. */
import type { Schemas } from '@/shared/api/client'
import { valueAt } from '@/shared/values'

export type Handle = Schemas['FlatView']['handles'][number]
export type LineHandle = Schemas['LineHandleView']
export type BoxHandle = Schemas['BoxHandleView']
export type AroundHandle = Schemas['AroundHandleView']
export type PickHandle = Schemas['PickHandleView']
export type Moved = Schemas['MovedView']
/** Figures by the names of the values that they are for. */
export type Figures = Record<string, number>

/** The figure of a name among the values, which may be ahead of the computed picture. */
export function figureAt(values: unknown, name: string, computed: number): number {
  const value = valueAt(values, name)
  return typeof value === 'number' ? value : computed
}

export const tidy = (value: number) => Math.round(value * 1e6) / 1e6
export const bounded = (value: number, least: number | null) => Math.max(value, least ?? -Infinity)
