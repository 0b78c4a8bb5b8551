/** The ways to begin a card, asked of the server again after each change of what they depend on. */
import { onBeforeUnmount, readonly, ref, shallowRef, watch } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { tellError } from '@/shared/messages'

export type Beginning = Schemas['BeginningView']

export interface Wish {
  document: DesignData
  figure: Record<string, unknown>
  margin: number
  fits: boolean
}

const PAUSE_MS = 80

export function useBeginnings(wish: () => Wish | null) {
  const found = shallowRef<readonly Beginning[]>([])
  const busy = ref(false)
  let timer: ReturnType<typeof setTimeout> | undefined
  let asked: AbortController | undefined

  async function ask(body: Wish) {
    asked?.abort()
    const mine = (asked = new AbortController())
    try {
      found.value = await answer(client.POST('/api/beginnings', { body, signal: mine.signal, headers: { 'X-About': 'new card' } }))
    } catch (error) {
      if (!mine.signal.aborted) tellError(error)
    } finally {
      if (asked === mine) busy.value = false
    }
  }

  watch(
    () => JSON.stringify(wish()),
    () => {
      const body = wish()
      clearTimeout(timer)
      if (!body) return
      // what is shown is of what was chosen before
      busy.value = true
      timer = setTimeout(() => void ask(body), PAUSE_MS)
    },
    { immediate: true },
  )
  onBeforeUnmount(() => {
    clearTimeout(timer)
    asked?.abort()
  })
  return { found, busy: readonly(busy) }
}
