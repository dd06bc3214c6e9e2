import { readFolioFile } from '#shared/folioFile'
import { saveAs } from '~/drawing/files'
import { openNumbers } from '~/keeping/blocks'
import { saveFolioFile } from '~/keeping/folioFile'
import { useFolioStore } from '~/stores/folio'

/**
 * Saves the open folio as a file, its numbers with it. Where those, or what puts
 * them in, cannot be had (no server), the folio goes without them, and false is
 * given back.
 */
export function useSaveFolio() {
  const folio = useFolioStore()
  return async (): Promise<boolean> => {
    const text = folio.asFile()
    if (folio.enclosures.length === 0) {
      saveFolioFile(folio.title, text)
      return true
    }
    try {
      const read = readFolioFile(text)
      if (read.kind === 'fault') throw new Error('the folio cannot be read back')
      const { folioAsFile } = await import('~/keeping/folioFiles')
      const { name, bytes } = await folioAsFile(read.file, (block) => openNumbers(folio.id, block))
      saveAs(new Blob([new Uint8Array(bytes)]), name)
      return true
    } catch {
      saveFolioFile(folio.title, text)
      return false
    }
  }
}
