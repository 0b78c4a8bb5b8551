/** A run on the server: begun, asked for how it goes, stopped, ended. */
import { onScopeDispose, readonly, ref } from 'vue'
import { answer, client } from '@/shared/api/client'
import { ApiError } from '@/shared/api/errors'
import type { RunView } from './types'

const FIRST = 120
const LATER = 600
const LOST = 2000

export function useRun() {
  const run = ref<RunView | null>(null)
  const trouble = ref('')
  let number = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  onScopeDispose(() => clearTimeout(timer))

  /** Ends with the run; null where it failed or another took its place. */
  async function follow(begun: Promise<RunView>): Promise<RunView | null> {
    const mine = ++number
    clearTimeout(timer)
    trouble.value = ''
    let seen = await begun
    let wait = FIRST
    for (;;) {
      if (mine !== number) return null
      run.value = seen
      if (seen.state === 'done' || seen.state === 'replaced') break
      if (seen.state === 'failed') {
        trouble.value = [seen.said, seen.hint].filter(Boolean).join(' ')
        break
      }
      await new Promise((resolve) => (timer = setTimeout(resolve, wait)))
      wait = Math.min(LATER, wait * 1.5)
      try {
        seen = await answer(client.GET('/api/runs/{number}', { params: { path: { number: seen.id } } }))
      } catch (error) {
        if (!(error instanceof ApiError) || !error.isOffline) throw error
        wait = LOST // the server may be there again in a moment
      }
    }
    return seen.state === 'done' ? seen : null
  }

  async function stop() {
    if (!run.value) return
    await answer(client.POST('/api/runs/{number}/stop', { params: { path: { number: run.value.id } } }))
  }

  const going = () => run.value?.state === 'waiting' || run.value?.state === 'running'
  return { run: readonly(run), trouble, follow, stop, going }
}
