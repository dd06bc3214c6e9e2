import { closeFolios, useFolios } from '../utils/folios'

/** Opens the database (and migrates it) at start, so that a broken one is said at once. */
export default defineNitroPlugin(async (nitro) => {
  nitro.hooks.hook('close', closeFolios)
  try {
    await useFolios()
  } catch (error) {
    process.stderr.write(
      `The data file could not be opened: ${error instanceof Error ? error.message : String(error)}\n`,
    )
  }
})
