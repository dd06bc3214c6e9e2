import { saveAs } from '~/drawing/files'

/** Offers a text as a file to save: work that neither the server nor the browser keeps leaves the page this way. */
export function saveFolioFile(title: string, text: string): void {
  saveAs(new Blob([text], { type: 'application/json' }), `${fileName(title)}.json`)
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
