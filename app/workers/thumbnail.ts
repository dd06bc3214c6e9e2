import { FolioEvaluator } from '#core/evaluate/folio'
import { lineView } from '#core/views/lineView'
import type { LineView } from '#core/views/lineView'
import type { Conventions } from '#core/format/conventions'
import type { Thumbnail } from '#shared/folio'

/** Longest time for one line, in milliseconds: a picture on a card is worth no waiting. */
const PATIENCE = 40
const MARKS_MOST = 60

function marksOf({ drawn, name }: LineView): Thumbnail['marks'] {
  if (!drawn?.usual || name === null) return []
  return drawn.entries.flatMap(({ re, im }) => (Number.isFinite(re) && Number.isFinite(im) ? [{ re, im }] : []))
}

/** The small picture of a folio: where the values of its first lines end in the plane. */
export function thumbnailOf(sources: readonly string[], conventions: Conventions): Thumbnail {
  const evaluator = new FolioEvaluator()
  evaluator.setSettings({ ...conventions, timeLimit: PATIENCE })
  evaluator.setLines(sources.map((source, k) => ({ id: String(k), source })))
  evaluator.update()
  const marks = sources.flatMap((_, k) => {
    const result = evaluator.result(String(k))
    const own = result ? lineView(result, conventions) : null
    return own ? [own, ...own.answers].flatMap(marksOf) : []
  })
  return { marks: marks.slice(0, MARKS_MOST) }
}
