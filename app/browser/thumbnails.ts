import { wrap } from 'comlink'
import type { Remote } from 'comlink'
import type { FolioCard, Thumbnail } from '#shared/folio'
import type { thumbnailOf } from '~/workers/thumbnail'
import { api } from '../keeping/api'

/** Pictures of cards: reckoned once in a worker, and kept on the server with the revision. */
let service: Remote<{ thumbnailOf: typeof thumbnailOf }> | null = null
let queue: Promise<unknown> = Promise.resolve()

function remote(): Remote<{ thumbnailOf: typeof thumbnailOf }> {
  service ??= wrap(new Worker(new URL('../workers/thumbnail.worker.ts', import.meta.url), { type: 'module' }))
  return service
}

/** The picture of a card that has none yet; one after another, the first asked first. */
export function reckonThumbnail(card: FolioCard): Promise<Thumbnail> {
  const done = queue.then(async () => {
    const thumbnail = await remote().thumbnailOf([...card.preview], { ...card.conventions })
    // Without it the picture is reckoned again next time, no more.
    await api.keepThumbnail(card.id, card.revision, thumbnail).catch(() => undefined)
    return thumbnail
  })
  queue = done.catch(() => undefined)
  return done
}
