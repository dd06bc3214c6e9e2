import type { Size } from '#core/scene/view'
import { DAY } from '~/theme/tokens'
import { SERIF } from './frame'
import type { Paint } from './files'

/** A picture with its number and its caption below it, as a figure of a report has them. */

const FONT = 15
/** About the width of a letter, and the distance of two lines, in pixels. */
const LETTER = 7.6
const LINE = 21
const EDGE = 12

/** Words in lines of at most so many letters. */
export function inLines(text: string, most: number): readonly string[] {
  const lines: string[] = []
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const last = lines.at(-1)
    if (last !== undefined && last.length + 1 + word.length <= most) lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines
}

export function captioned(
  paint: Paint,
  size: Size,
  number: number,
  caption: string,
): { readonly paint: Paint; readonly size: Size } {
  const name = `Plate ${number}`
  const lines = inLines(`${name} ${caption}`, Math.max(12, Math.floor((size.width - 2 * EDGE) / LETTER)))
  const height = 2 * EDGE + LINE * Math.max(1, lines.length)
  return {
    size: { width: size.width, height: size.height + height },
    paint(ctx) {
      ctx.save()
      paint(ctx)
      ctx.restore()
      ctx.fillStyle = DAY.leaf
      ctx.fillRect(0, size.height, size.width, height)
      ctx.fillStyle = DAY.ink
      ctx.textAlign = 'left'
      ctx.textBaseline = 'middle'
      lines.forEach((line, k) => {
        const y = size.height + EDGE + LINE * (k + 0.5)
        const bold = k === 0 ? name : ''
        if (bold !== '') {
          ctx.font = `700 ${FONT}px ${SERIF}`
          ctx.fillText(bold, EDGE, y)
        }
        const from = bold === '' ? EDGE : EDGE + ctx.measureText(`${bold} `).width + 4
        ctx.font = `italic ${FONT}px ${SERIF}`
        ctx.fillText(line.slice(bold.length).trim(), from, y)
      })
    },
  }
}
