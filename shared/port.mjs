/** The port at which the server listens where none is asked for. */
export const DEFAULT_PORT = 4747

/**
 * The port that is asked for (NITRO_PORT before PORT), or a sentence that says why it is none. Needed before
 * anything is installed, built or made, so that this file needs nothing.
 * @param {Readonly<Record<string, string | undefined>>} env
 * @returns {number | string}
 */
export function portFrom(env) {
  const [name, asked] = env.NITRO_PORT === undefined ? ['PORT', env.PORT] : ['NITRO_PORT', env.NITRO_PORT]
  if (asked === undefined) return DEFAULT_PORT
  const port = /^\d{1,5}$/.test(asked) ? Number(asked) : NaN
  if (port <= 65_535) return port
  return `${name} is ${JSON.stringify(asked)}; it must be a number from 0 to 65535, or not be set at all.`
}
