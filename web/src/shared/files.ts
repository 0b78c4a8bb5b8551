/** Files handed to the browser to be saved. */
export function saveBlob(blob: Blob, name: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}

/** A file of the server, which says its name. */
export function saveFrom(address: string) {
  const link = document.createElement('a')
  link.href = address
  link.download = ''
  link.click()
}

/** A name for a file: letters, digits, - and _ of any script. */
export function fileName(text: string): string {
  return text.normalize('NFC').replace(/[^\p{L}\p{N}_-]+/gu, '-').replace(/^-+|-+$/g, '').slice(0, 80) || 'card'
}
