/** The design itself as a file: saved, and opened as a design of its own. */
import { t } from '@/shared/words'
import { answer, client } from './api/client'
import type { DesignData } from './api/document'
import { fileName, saveBlob } from './files'
import { ApiError } from './api/errors'

export const LARGEST_DESIGN = 12_000_000

export const isDesignFile = (file: File) => /\.json$/i.test(file.name) || file.type === 'application/json'

export function saveDesignFile(design: DesignData): string {
  const name = `${fileName(design.name)}.json`
  saveBlob(new Blob([JSON.stringify(design, null, 1)], { type: 'application/json' }), name)
  return name
}

/** The number of the design that the file is now; ApiError where it is none. */
export async function openDesignFile(file: File): Promise<number> {
  if (file.size > LARGEST_DESIGN) throw ApiError.of(t('“{name}” is too large to be a design.', { name: file.name }), t('A design has at most 12 MB.'))
  let parsed: unknown
  try {
    parsed = JSON.parse(await file.text())
  } catch {
    throw ApiError.of(t('“{name}” is no design: it cannot be read as JSON.', { name: file.name }), t('Drop a file that “Save the design itself” made.'))
  }
  if (typeof parsed !== 'object' || parsed === null || Array.isArray(parsed)) throw ApiError.of(t('“{name}” is no design.', { name: file.name }), t('Drop a file that “Save the design itself” made.'))
  const made = await answer(client.POST('/api/designs', { body: { document: parsed as DesignData } }))
  return made.id
}
