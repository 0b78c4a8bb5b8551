/**
 * The open design: its document with undo and redo, drafted in the browser at once and saved to
 * the server within a second.
 */
import { computed, shallowRef } from 'vue'
import { answer, client } from '@/shared/api/client'
import type { LeftDraft } from '@/shared/drafts'
import { tellError } from '@/shared/messages'
import { useDocument, type Edit, type Later } from './useDocument'
import { usePast } from './usePast'
import { useSaving } from './useSaving'

/** `owner` tells the person and the server's data from others in this browser. */
export function useDesign(id: number, owner: string) {
  const open = useDocument(() => saving.changed())
  const past = usePast(id)
  const saving = useSaving(id, owner, open.document, open.passing)
  /** Work that the server never got, until it is decided whether to go on with it: of each tab that left some. */
  const offered = shallowRef<readonly LeftDraft[]>([])

  async function load() {
    const found = await saving.open()
    open.put(found.document, { anew: true })
    offered.value = found.offered
    void past.load()
  }
  function takeUp(draft: LeftDraft) {
    offered.value = offered.value.filter((d) => d !== draft)
    saving.takeUp(draft)
    if (open.change(() => draft.document)) saving.changed(0)
  }
  function letGo(draft: LeftDraft) {
    offered.value = offered.value.filter((d) => d !== draft)
    saving.letGo(draft)
  }

  const change = (edit: Edit) => void open.change(edit)
  const later = <A>(command: Later<A>) => open.later(command)
  function step(by: 'undo' | 'redo') {
    const before = open.document.value
    open[by]()
    if (open.document.value !== before) saving.changed()
  }
  let reaching = false
  /** Undo, and beyond what was done here into the versions before it. */
  async function undo() {
    if (open.canUndo.value || open.passing.value) return step('undo')
    const now = open.document.value
    if (!now || reaching) return
    reaching = true
    try {
      const earlier = await past.before(now)
      if (!earlier || open.document.value !== now) return
      open.putBehind(earlier)
      step('undo')
    } catch (error) {
      tellError(error)
    } finally {
      reaching = false
    }
  }

  async function takeTheirs() {
    open.put(await saving.takeTheirs())
  }

  /** After a conflict: mine becomes a design of its own. Resolves with its number. */
  async function keepBoth(): Promise<number> {
    const mine = open.document.value!
    const document = { ...mine, name: `${mine.name.slice(0, 110)} (mine)` }
    const made = await answer(client.POST('/api/designs', { body: { document } }))
    await takeTheirs()
    return made.id
  }

  return {
    document: open.document,
    canUndo: computed(() => open.canUndo.value || past.any.value),
    canRedo: open.canRedo,
    preview: open.preview,
    giveUp: open.giveUp,
    undo: () => void undo(),
    redo: () => step('redo'),
    change,
    later,
    leave: saving.leave,
    offered,
    takeUp,
    letGo,
    load,
    state: saving.state,
    trouble: saving.trouble,
    savedAt: saving.savedAt,
    conflict: saving.conflict,
    save: saving.save,
    keepMine: saving.keepMine,
    takeTheirs,
    keepBoth,
  }
}
