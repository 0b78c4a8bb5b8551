/** Cut files of a piece: asked for, and handed to the browser to be saved. */
import { readonly, ref, type Ref } from 'vue'
import { fetchFile } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'
import { tell, tellError } from '@/shared/messages'

export function useExport(document: Ref<DesignData | null>, piece: Ref<string>) {
  const exporting = ref(false)

  async function exportFile(format: string) {
    if (!document.value) return
    exporting.value = true
    try {
      const wish = { document: document.value, piece: piece.value, format }
      const { blob, name } = await fetchFile('/api/export', wish)
      const link = window.document.createElement('a')
      link.href = URL.createObjectURL(blob)
      link.download = name
      link.click()
      setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
      tell(`${name} is written.`)
    } catch (error) {
      tellError(error)
    } finally {
      exporting.value = false
    }
  }

  return { exporting: readonly(exporting), exportFile }
}
