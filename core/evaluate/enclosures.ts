import type { Data } from '../measured/data'
import { enclosedValue } from '../measured/enclosed'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { Value } from '../values/types'

/** Measured data that is kept with a folio: what `enclosure("…")` is worth. */

interface Enclosed {
  /** Tells one version of the data from another. */
  readonly stamp: string
  /** `null` while the numbers are on their way. */
  readonly data: Data | null
  readonly lost: boolean
  value: Value | null
}

export class Enclosures {
  private readonly known = new Map<string, Enclosed>()

  /** Announces an enclosure whose numbers come later, or gives them. */
  put(name: string, stamp: string, data: Data | null, lost = false): void {
    this.known.set(name, { stamp, data, lost, value: null })
  }

  remove(name: string): void {
    this.known.delete(name)
  }

  names(): readonly string[] {
    return [...this.known.keys()]
  }

  stampOf(name: string): string {
    const found = this.known.get(name)
    if (!found) return `none of ${this.names().join(', ')}`
    return found.data ? found.stamp : found.lost ? 'lost' : 'loading'
  }

  valueOf(name: string): Value | Failure {
    const found = this.known.get(name)
    if (!found)
      return failure('no-enclosure', {
        name,
        known: this.names()
          .map((n) => `“${n}”`)
          .join(', '),
      })
    if (!found.data) return failure(found.lost ? 'enclosure-lost' : 'enclosure-loading', { name })
    found.value ??= enclosedValue(name, found.data)
    return found.value
  }
}
