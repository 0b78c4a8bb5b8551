/** Artworks of the shelf in the open design: newer ones taken, dropped files kept and started with. */
import { readonly, ref, shallowRef } from 'vue'
import { useCatalogue } from '@/shared/catalogue'
import { tell, tellError } from '@/shared/messages'
import { useShelf } from '@/shared/shelf'
import { t } from '@/shared/words'
import { drawnOutline, startOf } from '@/features/outlines'
import type { Wish } from '@/features/reading'
import type { Changing } from '../state/useDocument'
import type { Selection } from '../state/useSelection'
import * as edits from './edits'

export function useArtworkCommands(design: Changing, selection: Selection) {
  const { document } = design
  const catalogue = useCatalogue()
  const shelf = useShelf()
  /** A file that was dropped, while it is being read. */
  const dropped = shallowRef<File | null>(null)
  const keeping = ref(false)

  async function takeNewer(earlier: string, id: number) {
    try {
      const row = await shelf.full(id)
      design.change((now) => edits.replaceArtwork(now, earlier, row.key, row.artwork))
    } catch (error) {
      tellError(error)
    }
  }

  async function keepDropped(wish: Wish, start: boolean) {
    keeping.value = true
    try {
      const row = await shelf.keepArtwork(wish.drawing, wish.tags, wish.source)
      dropped.value = null
      if (!start || !document.value) return tell(t('“{name}” is on the shelf.', { name: row.name }))
      const values = startOf(catalogue, drawnOutline(catalogue, row))
      const starts = (kind: string) => Boolean(catalogue.step(kind)?.starts_with)
      const piece = selection.pieceId.value
      let key = ''
      design.change((now) => {
        const [next, made] = edits.setStart(edits.withArtwork(now, row.key, row.artwork), piece, values, starts)
        key = made
        return next
      })
      selection.stepId.value = key
    } catch (error) {
      tellError(error)
    } finally {
      keeping.value = false
    }
  }

  return { dropped, keeping: readonly(keeping), takeNewer, keepDropped }
}
