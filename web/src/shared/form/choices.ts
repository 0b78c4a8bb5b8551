/** What the fields of a form choose from: given by the form, read by the controls that need it. */
import { computed, inject, provide, type ComputedRef, type InjectionKey } from 'vue'
import type { Unit } from '@/shared/api/document'

export interface Named {
  readonly key: string
  readonly title: string
}
export interface Choices {
  readonly unit: Unit
  readonly targets: readonly string[]
  /** By field: what can be chosen as things stand; all where a field is not named. */
  readonly offers: Readonly<Record<string, readonly string[]>>
  readonly windows: readonly Named[]
  readonly pieces: readonly Named[]
}
const KEY: InjectionKey<ComputedRef<Choices>> = Symbol('choices of a form')

/** For a form: its fields choose from these. */
export function provideChoices(of: () => Partial<Choices> & Pick<Choices, 'unit'>) {
  provide(KEY, computed(() => ({ targets: [], offers: {}, windows: [], pieces: [], ...of() })))
}

export function useChoices(): ComputedRef<Choices> {
  const choices = inject(KEY)
  if (!choices) throw new Error('a field stands in a form that provides its choices')
  return choices
}
