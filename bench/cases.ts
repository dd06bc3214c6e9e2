import { FolioEvaluator } from '#core/evaluate/folio'

/**
 * What is measured beside an older commit: built with the core of each, so that it names nothing but what every commit
 * has. Each case is something to be done once; how often, the one who measures decides.
 */
export interface Case {
  readonly name: string
  readonly run: () => void
}

const GIVEN = ['V = 230.1 + 0.7j', 'I = 16.33 - 6.805j', 'R = 47.2', 'w = 314.159', 'L = 0.1203']
const PLAIN = [
  '2*(3 + 4)/5 - 1.5^2', '(12 + 5j)*(3 - 4j)/(1 + 2j)', '230/sqrt(47^2 + 37.7^2)', 'V*conj(I)/2', 'V/(R + j*w*L)',
  'Z = 12 + 5j', 'V/2 + 3*I', 'V*exp(0.3j)', 'abs(V)^2/R', 'sqrt(V*conj(V))',
] // prettier-ignore

interface Text {
  readonly id: string
  readonly source: string
}
const lines = (sources: readonly string[]): Text[] => sources.map((source, k) => ({ id: `l${k}`, source }))

/** A folio of 300 lines of which an edit of the first touches ten. */
export function longFolio(first: string): Text[] {
  const sources = Array.from({ length: 300 }, (_, k) => {
    if (k === 0) return first
    return k % 30 === 0 ? `I_${k} = V/(${k} + ${k + 1}j)` : `Z_${k} = ${k} + 1/(1/(47 + ${k}j) + 1/(j*0.0${k}))`
  })
  return lines(sources)
}

/** The same lines again and again, each time one of them with another text. */
function editing(first: readonly Text[], texts: readonly (readonly Text[])[]): () => void {
  const evaluator = new FolioEvaluator()
  evaluator.setLines(first)
  evaluator.update()
  let turn = 0
  return () => {
    turn = (turn + 1) % texts.length
    evaluator.setLines(texts[turn] ?? first)
    evaluator.update()
  }
}

export function cases(): readonly Case[] {
  const plain = PLAIN.map((line) => lines([...GIVEN, line]))
  const [one, other] = [longFolio('V = 230∠0°'), longFolio('V = 231∠0°')]
  return [
    { name: 'plain lines, each typed anew', run: editing(plain[0] ?? [], plain) },
    { name: 'an edit that touches ten of 300 lines', run: editing(one, [one, other]) },
    {
      name: '300 lines from their text',
      run: () => {
        const fresh = new FolioEvaluator()
        fresh.setLines(one)
        fresh.update()
      },
    },
  ]
}
