import { closeFolios, useStore } from '../utils/folios'

/**
 * Opens the database (and migrates it) at start, so that a broken one is said at once. Where the server stands by
 * itself its entry does that, once it knows that it can start at all.
 */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('close', closeFolios)
  // The routes say why it cannot be opened.
  if (import.meta.dev) useStore().catch(() => undefined)
})
