/** A job of one design, from wherever that is shown. */
import { answer, client } from '@/shared/api/client'

/** The new job's number. */
export async function beginJob(design: number, name: string): Promise<number> {
  const made = await answer(client.POST('/api/jobs', { body: { name, designs: [{ design, count: 1 }] } }))
  return made.id
}
