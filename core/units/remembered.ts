/** Results of one object with others: the same few are asked for over and over. */
export type Remembered<T> = Map<T, T>

/** How many are kept at most: beyond that all are worked out anew. */
const MOST = 20_000

/** Keeps a result, and gives it back. */
export function remember<T>(places: Remembered<T>, at: T, found: T): T {
  if (places.size > MOST) places.clear()
  places.set(at, found)
  return found
}
