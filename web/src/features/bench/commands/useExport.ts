/** Cut files of a piece: asked for, and handed to the browser to be saved. */
import { readonly, ref, type Ref } from 'vue'
import { fetchFile } from '@/shared/api/client'
import type { DesignData, Values } from '@/shared/api/document'
import { saveDesignFile } from '@/shared/designFile'
import { fileName, saveBlob } from '@/shared/files'
import { t } from '@/shared/words'
import { useCourse } from '@/features/help'
import { tell, tellError } from '@/shared/messages'

/** How the folded card is looked at: its folds' angles, and where the eye and up are. */
export interface Seen {
  readonly angles: readonly number[]
  readonly apart: number
  readonly eye: readonly [number, number, number]
  readonly up: readonly [number, number, number]
}

export function useExport(document: Ref<DesignData | null>, piece: Ref<string>) {
  const exporting = ref(false)

  async function exportFile(format: string, options: Values): Promise<boolean> {
    if (!document.value) return false
    exporting.value = true
    try {
      const wish = { document: document.value, piece: piece.value, format, options }
      const { blob, name } = await fetchFile('/api/export', wish)
      saveBlob(blob, name)
      tell(t('{name} is written.', { name }))
      useCourse().reach('saved')
      return true
    } catch (error) {
      tellError(error)
      return false
    } finally {
      exporting.value = false
    }
  }

  /** The folded card as it is seen, as an SVG or, given by the browser, as a PNG. */
  async function savePicture(seen: Seen | Blob) {
    if (!document.value) return
    try {
      const wish = { document: document.value, piece: piece.value }
      if (seen instanceof Blob) return saveBlob(seen, `${fileName(document.value.name)}-folded.png`)
      const { blob, name } = await fetchFile('/api/picture', { ...wish, ...seen })
      saveBlob(blob, name)
    } catch (error) {
      tellError(error)
    }
  }

  function saveDesign() {
    if (document.value) tell(t('{name} is written. Drop it on the designs to open it again.', { name: saveDesignFile(document.value) }))
  }

  return { exporting: readonly(exporting), exportFile, savePicture, saveDesign }
}
