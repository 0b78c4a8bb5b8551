/** The family of the design in hand: the designs that are kept in step with it. */
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { answer, client, type Schemas } from '@/shared/api/client'
import { t } from '@/shared/words'

export type Member = Schemas['KinMember']

export const useFamily = defineStore('family', () => {
  const members = shallowRef<readonly Member[]>([])
  let of = 0

  async function load(number: number) {
    if (of !== number) members.value = []
    of = number
    const found = await answer(client.GET('/api/designs/{number}/kin', { params: { path: { number } } }))
    if (of === number) members.value = found
  }
  async function link(number: number, others: number[]) {
    await answer(client.POST('/api/designs/{number}/kin', { params: { path: { number } }, body: { others } }))
    await load(number)
  }
  async function leave(number: number) {
    await answer(client.DELETE('/api/designs/{number}/kin', { params: { path: { number } } }))
    await load(number)
  }
  return { members, load, link, leave }
})

/** "3 changes", for a badge or a button. */
export const changesInWords = (count: number) => (count === 1 ? t('one change') : t('{n} changes', { n: count }))
