/** Steps by what is said; the server knows what they are called. */
import { ref, shallowRef, watch } from 'vue'
import { useLocalStorage } from '@vueuse/core'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { Unit, Values } from '@/shared/api/document'
import type { StepKind } from '@/shared/catalogue'
import { tellError } from '@/shared/messages'

export interface Found {
  kind: StepKind
  values: Values
  told: readonly string[]
}
type Hit = Schemas['HitView']

const MOST_LATELY = 8

export function useStepSearch(offered: () => readonly StepKind[], unit: () => Unit) {
  const words = ref('')
  const hits = shallowRef<readonly Hit[]>([])
  let pending: Promise<void> = Promise.resolve()

  async function ask(said: string) {
    const found = await answer(client.GET('/api/steps', { params: { query: { said, unit: unit() } } }))
    if (said === words.value.trim()) hits.value = found
  }
  watch(words, (text) => {
    const said = text.trim()
    pending = said ? ask(said).catch(tellError) : Promise.resolve(void (hits.value = []))
  })

  function found(): Found[] {
    const steps = offered()
    if (!words.value.trim()) return steps.map((kind) => ({ kind, values: {}, told: [] }))
    return hits.value.flatMap(({ kind, values, told }) => {
      const step = steps.find((s) => s.kind === kind)
      return step ? [{ kind: step, values, told }] : []
    })
  }
  return { words, found, settled: () => pending }
}

/** Kinds of steps that were added lately, the last one first. */
export function useLately() {
  const kinds = useLocalStorage<string[]>('stileblade.steps.lately', [])
  const remember = (kind: string) => (kinds.value = [kind, ...kinds.value.filter((k) => k !== kind)].slice(0, MOST_LATELY))
  return { kinds, remember }
}
