/** The ways to begin a card, asked of the server again after each change of what they depend on. */
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { tellError } from '@/shared/messages'
import { t } from '@/shared/words'

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
  /** What is wished for, and what is shown is of. */
  const wanted = ref('')
  const shown = ref('')
  let timer: ReturnType<typeof setTimeout> | undefined
  let asked: AbortController | undefined

  async function ask(body: Wish, key: string) {
    asked?.abort()
    const mine = (asked = new AbortController())
    try {
      found.value = await answer(client.POST('/api/beginnings', { body, signal: mine.signal, headers: { 'X-About': t('new card') } }))
    } catch (error) {
      if (mine.signal.aborted) return
      found.value = []
      tellError(error)
    }
    shown.value = key
  }

  watch(
    () => JSON.stringify(wish()),
    (key) => {
      const body = wish()
      clearTimeout(timer)
      if (!body) return
      wanted.value = key
      timer = setTimeout(() => void ask(body, key), PAUSE_MS)
    },
    { immediate: true },
  )
  function again() {
    const body = wish()
    if (!body) return
    shown.value = ''
    void ask(body, wanted.value)
  }
  onBeforeUnmount(() => {
    clearTimeout(timer)
    asked?.abort()
  })
  return { found, again, busy: computed(() => wanted.value !== shown.value) }
}
