import type { ShownSweep } from '#core/scene/curve'
import type { PlaneMark } from '#core/scene/scene'

/** Values that are told one by one; the table below the picture, once it is open, has them all. */
export const SPOKEN = 24

/** What a screen reader says of a plane. */
export function planeSummary(marks: readonly PlaneMark[], loci: readonly ShownSweep[]): string {
  const values = marks.filter((m) => !m.term)
  const told = values.slice(0, SPOKEN).map((m) => `${m.label} ${m.polar}`)
  if (values.length > SPOKEN) told.push(`and ${values.length - SPOKEN} more, in the table`)
  for (const { name, data } of loci.slice(0, SPOKEN)) told.push(`locus of ${name}, ${data.re.length} points`)
  if (told.length === 0) return 'Complex plane, empty'
  const what = values.length === 0 ? 'Complex plane' : `Complex plane with ${values.length} values`
  return `${what}: ${told.join('; ')}. Arrow keys move the picture, plus and minus zoom, 0 fits.`
}
