/** A job of designs, one card of each, from wherever they are shown. */
import { answer, client } from '@/shared/api/client'

/** The new job's number. */
export async function beginJob(designs: readonly number[], name: string): Promise<number> {
  const body = { name, designs: designs.map((design) => ({ design, count: 1 })) }
  return (await answer(client.POST('/api/jobs', { body }))).id
}
