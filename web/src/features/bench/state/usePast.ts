/**
 * The versions of a design before it was opened here: undo goes on into them, so that it survives leaving and
 * reloading. Their documents are fetched as they are come to.
 */
import { computed, ref } from 'vue'
import { answer, client } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'

export function usePast(id: number) {
  const versions = ref<number[]>([])

  /** Which there are, the newest first; none where they cannot be had, which is no reason to stop anybody. */
  async function load() {
    try {
      const found = await answer(client.GET('/api/designs/{number}/versions', { params: { path: { number: id } } }))
      versions.value = found.filter((v) => !v.refused).map((v) => v.kept)
    } catch {
      versions.value = []
    }
  }

  /** The last version that differs from the document, and is not come to again; null where there is none. */
  async function before(document: DesignData): Promise<DesignData | null> {
    const now = JSON.stringify(document)
    for (;;) {
      const kept = versions.value[0]
      if (kept === undefined) return null
      const path = { number: id, kept }
      const found = await answer(client.GET('/api/designs/{number}/versions/{kept}', { params: { path } }))
      versions.value = versions.value.slice(1)
      const earlier = found.document as DesignData
      if (JSON.stringify(earlier) !== now) return earlier
    }
  }
  return { load, before, any: computed(() => versions.value.length > 0) }
}
