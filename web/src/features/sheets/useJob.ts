/** A job: its values, its layout, and what moves pieces on it. */
import { computed, ref } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import { ApiError } from '@/shared/api/errors'
import { tell, tellError } from '@/shared/messages'
import type { Job, LaidPiece } from './types'
import { useRun } from './useRun'

export function useJob(id: number) {
  const job = ref<Job | null>(null)
  const trouble = ref('')
  const laying = useRun()
  const path = { params: { path: { number: id } } }
  const sheets = computed(() => job.value?.layout?.sheets ?? [])
  const parts = computed(() => job.value?.layout?.parts ?? {})

  async function load() {
    trouble.value = ''
    try {
      job.value = await answer(client.GET('/api/jobs/{number}', path))
      if (job.value.running !== null) {
        const number = job.value.running
        void followed(answer(client.GET('/api/runs/{number}', { params: { path: { number } } })))
      }
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      trouble.value = error.text
    }
  }

  async function change(body: Schemas['JobChange']) {
    try {
      job.value = await answer(client.PATCH('/api/jobs/{number}', { ...path, body }))
    } catch (error) {
      tellError(error)
    }
  }

  async function followed(begun: Promise<Schemas['RunView']>) {
    try {
      if (await laying.follow(begun)) job.value = await answer(client.GET('/api/jobs/{number}', path))
    } catch (error) {
      tellError(error)
    }
  }
  /** The layout before, in place of this one. */
  async function back() {
    try {
      job.value = await answer(client.POST('/api/jobs/{number}/back', path))
    } catch (error) {
      tellError(error)
    }
  }
  const layOut = () => followed(answer(client.POST('/api/jobs/{number}/lay', path)))

  /** How a piece would lie elsewhere; null where nobody could be asked. */
  async function near(body: Schemas['Move']): Promise<Schemas['Nearness'] | null> {
    try {
      return await answer(client.POST('/api/jobs/{number}/near', { ...path, body }))
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      return null
    }
  }

  let last: Promise<unknown> = Promise.resolve()

  /**
   * Puts a piece elsewhere; whether it may lie there. What is refused is said, and changes nothing. One wish
   * comes after the other, made of what the one before left: two keys pressed at once are both done.
   */
  function place(sheet: number, index: number, wish: (piece: LaidPiece) => Partial<Schemas['Move']>): Promise<boolean> {
    const next = last.then(async () => {
      const piece = sheets.value[sheet]?.pieces[index]
      if (!piece) return false
      try {
        const body = { sheet, index, to: sheet, piece, about_middle: false, ...wish(piece) }
        job.value = await answer(client.POST('/api/jobs/{number}/place', { ...path, body }))
        return true
      } catch (error) {
        if (!(error instanceof ApiError)) throw error
        tell(error.text, 'warning')
        return false
      }
    })
    last = next
    return next
  }

  return { job, sheets, parts, trouble, laying, load, change, layOut, back, near, place }
}
