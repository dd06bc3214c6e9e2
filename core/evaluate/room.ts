import { doublesOf } from '../kinds/kinds'
import { problem } from '../notation/problem'
import type { Evaluated } from './line'

/** Most doubles that the values of a folio hold together (480 MB): two sweeps of the largest kind. */
export const DOUBLES_MOST = 60_000_000

/** What a line holds of the room. */
export interface Tenant {
  readonly source: string
  /** Doubles that its value holds. */
  weight: number
  /** Doubles that its value would hold, where there was no room for it. */
  refused: number
}

/** The room that the values of a folio have together. */
export class Room {
  /** Doubles that all values hold. */
  private held = 0

  /** A value for which there is no room is not kept: the line says so. */
  take(tenant: Tenant, evaluated: Evaluated): Evaluated {
    this.leave(tenant)
    const weight = evaluated.value ? doublesOf(evaluated.value) : 0
    if (weight > 0 && this.held + weight > DOUBLES_MOST) {
      tenant.refused = weight
      const span = { from: 0, to: tenant.source.length }
      const most = millions(DOUBLES_MOST)
      return { ...evaluated, value: null, problem: problem('no-room', span, { most, has: millions(weight) }) }
    }
    tenant.weight = weight
    this.held += weight
    return evaluated
  }

  leave(tenant: Tenant): void {
    this.held -= tenant.weight
    tenant.weight = 0
    tenant.refused = 0
  }

  /** True where others have given up since what a line found no room for. */
  hasCome(tenant: Tenant): boolean {
    return tenant.refused > 0 && this.held + tenant.refused <= DOUBLES_MOST
  }
}

function millions(count: number): number {
  return Math.ceil(count / 1e6)
}
