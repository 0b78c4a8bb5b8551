/**
 * The open design: its document with undo and redo, drafted in the browser at once and saved to
 * the server within a second.
 */
import { ref } from 'vue'
import { answer, client } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { useDocument } from './useDocument'
import { useSaving } from './useSaving'

export function useDesign(id: number) {
  const open = useDocument()
  const saving = useSaving(id, open.document, open.passing)
  const restored = ref(false)

  async function load() {
    const found = await saving.open()
    open.put(found.saved, { anew: true })
    if (!found.drafted) return
    // work that the connection did not carry: it goes on from where it was
    open.put(found.document)
    restored.value = true
    saving.changed(0)
  }

  function change(next: DesignData) {
    if (open.change(next)) saving.changed()
  }
  function step(by: 'undo' | 'redo') {
    const before = open.document.value
    open[by]()
    if (open.document.value !== before) saving.changed()
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
    canUndo: open.canUndo,
    canRedo: open.canRedo,
    preview: open.preview,
    giveUp: open.giveUp,
    undo: () => step('undo'),
    redo: () => step('redo'),
    change,
    restored,
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
