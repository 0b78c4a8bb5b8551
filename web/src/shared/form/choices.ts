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
  readonly folds: readonly string[]
  readonly windows: readonly Named[]
  readonly pieces: readonly Named[]
}
const KEY: InjectionKey<ComputedRef<Choices>> = Symbol('choices of a form')

/** For a form: its fields choose from these. */
export function provideChoices(of: () => Partial<Choices> & Pick<Choices, 'unit'>) {
  provide(KEY, computed(() => ({ targets: [], folds: [], windows: [], pieces: [], ...of() })))
}

export function useChoices(): ComputedRef<Choices> {
  const choices = inject(KEY)
  if (!choices) throw new Error('a field stands in a form that provides its choices')
  return choices
}
