/** Values set and looked up by their names: "outline.width" is the width of a figure, "angles.2" the third angle. */
import type { Values } from './api/document'

/** An object with some values set by their names. */
export function withValues<T extends object>(whole: T, values: Values): T {
  return Object.entries(values).reduce<unknown>((made, [name, value]) => put(made, name.split('.'), value), whole) as T
}

function put(whole: unknown, [name, ...inner]: string[], value: unknown): unknown {
  if (name === undefined) return value
  if (Array.isArray(whole)) {
    const index = Number(name)
    const length = Math.max(whole.length, index + 1)
    return Array.from({ length }, (_, i) => (i === index ? put(whole[i], inner, value) : (whole[i] ?? null)))
  }
  const known = (whole ?? {}) as Record<string, unknown>
  return { ...known, [name]: put(known[name], inner, value) }
}

/** The value of a name as `withValues` takes it. */
export function valueAt(whole: unknown, name: string): unknown {
  return name.split('.').reduce<unknown>((at, key) => (at as Record<string, unknown> | null | undefined)?.[key], whole)
}
