import { closeFolios, useStore } from '../utils/folios'

/** Opens the database (and migrates it) at start, so that a broken one is said at once; see also `entry.ts`. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('close', closeFolios)
  // The entry says why it cannot be opened, and ends; in development the routes say it.
  useStore().catch(() => undefined)
})
