/** Before somebody signs out: what becomes of work in this browser that was never saved. */
import { canSeal, openDrafts, removeDraft, sealDrafts } from '@/shared/drafts'
import { ask, choose } from '@/shared/messages'
import { t } from '@/shared/words'

/** Deletes or seals the person's drafts, as they choose; false where they would rather stay. */
export async function leaveDrafts(owner: string): Promise<boolean> {
  const drafts = openDrafts(owner)
  if (!drafts.length) return true
  const title = t('Unsaved work in this browser')
  const text = t('One draft here was never saved. Others who use this browser could read it. | {n} drafts here were never saved. Others who use this browser could read them.', { n: drafts.length }, drafts.length)
  const [away, keep] = [t('Delete, and sign out'), t('Lock until I am back, and sign out')]
  const wish = canSeal() ? await choose(title, text, keep, away) : (await ask(title, text, away)) ? 'second' : null
  if (wish === 'first') await sealDrafts(owner)
  if (wish === 'second') drafts.forEach(removeDraft)
  return wish !== null
}
