/** This tab's draft of a design, and those that other tabs left: a person who opens the design is offered them, and never given one. */
import { onScopeDispose } from 'vue'
import { leftDrafts, newDraftKey, removeDraft, useKey, writeDraft, type Draft, type LeftDraft } from '@/shared/drafts'
import type { DesignData } from '@/shared/api/document'

/** `owner` tells the person and the server's data from others in this browser. */
export function useDraft(id: number, owner: string) {
  const key = newDraftKey(owner, id)
  onScopeDispose(useKey(key))

  return {
    write: (draft: Draft) => writeDraft(key, draft),
    forget: () => removeDraft(key),
    /** What was left here, the newest first; what is as the server has it goes. */
    async left(isKept: (document: DesignData) => boolean): Promise<LeftDraft[]> {
      const found = await leftDrafts(owner, id)
      for (const draft of found) if (isKept(draft.document)) removeDraft(draft.key)
      return found.filter((draft) => draft.key !== key && !isKept(draft.document))
    },
    /** A draft that was left becomes this tab's own. */
    adopt(draft: LeftDraft) {
      writeDraft(key, { revision: draft.revision, document: draft.document, sent: draft.sent, at: draft.at })
      removeDraft(draft.key)
    },
    drop: (draft: LeftDraft) => removeDraft(draft.key),
  }
}
