/** What the find palette can list, and how well it fits what is asked for. */
export interface Finding {
  readonly id: string
  readonly group: 'Actions' | 'Names' | 'Lines' | 'Folios' | 'Handbook'
  readonly label: string
  readonly detail: string
  readonly key?: string
  /** Further words by which it is found. */
  readonly also?: string
  readonly run: () => void
}

/** 0 where it does not fit; more for a label that begins with the words, or has them at the start of a word. */
export function fitness(finding: Pick<Finding, 'label' | 'detail' | 'also'>, asked: string): number {
  const words = asked.toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length === 0) return 1
  const label = finding.label.toLowerCase()
  const rest = `${finding.detail} ${finding.also ?? ''}`.toLowerCase()
  let total = 0
  for (const word of words) {
    const at = label.indexOf(word)
    if (label === word) total += 40
    else if (at === 0) total += 20
    else if (at > 0 && /[\s(_]/.test(label.charAt(at - 1))) total += 12
    else if (at > 0) total += 6
    else if (rest.includes(word)) total += 3
    else return 0
  }
  return total
}

/** What this folio has and what can be done in it come before what can be read about. */
const HERE = 9

function rank(finding: Finding, asked: string): number {
  const fit = fitness(finding, asked)
  return fit > 0 && (finding.group === 'Actions' || finding.group === 'Names' || finding.group === 'Lines')
    ? fit + HERE
    : fit
}

/** The findings that fit, best first; those that fit alike keep their order. */
export function findAmong(findings: readonly Finding[], asked: string, most: number): readonly Finding[] {
  return findings
    .map((finding, k) => ({ finding, k, fit: rank(finding, asked) }))
    .filter((f) => f.fit > 0)
    .sort((a, b) => b.fit - a.fit || a.k - b.k)
    .slice(0, most)
    .map((f) => f.finding)
}
