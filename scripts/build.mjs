import { ensureBuild } from './lib.mjs'

/** Builds the application where it is not built yet as it stands. */
ensureBuild()
