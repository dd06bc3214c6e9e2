/** Offers a text as a file to save: work that neither the server nor the browser keeps leaves the page this way. */
export function saveFolioFile(title: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type: 'application/json' }))
  const link = document.createElement('a')
  link.href = address
  link.download = `${fileName(title)}.json`
  link.click()
  setTimeout(() => URL.revokeObjectURL(address), 10_000)
}

/** The title as a name for a file. */
export function fileName(title: string): string {
  const name = title
    .normalize('NFC')
    .replace(/[^\p{L}\p{N} ._-]+/gu, ' ')
    .trim()
    .replace(/\s+/g, ' ')
    .slice(0, 80)
  return name === '' || /^\.+$/.test(name) ? 'folio' : name
}
