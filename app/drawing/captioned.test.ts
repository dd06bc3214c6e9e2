import * as fc from 'fast-check'
import { captioned, inLines } from './captioned'
import { recording } from './recording.testing'

test('words go into lines, none is lost or cut', () => {
  const words = fc.array(fc.stringMatching(/^[a-z]{1,20}$/), { maxLength: 30 })
  fc.assert(
    fc.property(words, fc.integer({ min: 5, max: 60 }), (list, most) => {
      const lines = inLines(list.join(' '), most)
      expect(lines.join(' ')).toBe(list.join(' '))
      for (const line of lines) expect(line.length <= most || !line.includes(' ')).toBe(true)
    }),
  )
})

test('number and caption stand below the picture, which stays as it is', () => {
  const painted: string[] = []
  const { paint, size } = captioned(() => void painted.push('picture'), { width: 300, height: 200 }, 2, 'Mesh currents of the shore cable, in A') // prettier-ignore
  expect(size.width).toBe(300)
  expect(size.height).toBeGreaterThan(240)
  const { ctx, texts } = recording()
  paint(ctx)
  expect(painted).toEqual(['picture'])
  expect(texts.map((t) => t.text).join(' ')).toBe('Plate 2 Mesh currents of the shore cable, in A')
  for (const text of texts) expect(text.y).toBeGreaterThan(200)
  for (const text of texts) expect(text.y).toBeLessThan(size.height)
})
