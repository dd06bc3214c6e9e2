import { reckon } from '#core/testing'
import { FIRST_LINES, onlyOffered } from './firstLines'

test.each(FIRST_LINES.map((one) => [one.what, one.lines] as const))('%s can be read', (_, lines) => {
  const results = reckon(lines.filter((line) => !line.note).map((line) => line.source))
  for (const { error, hints } of results) expect([error, hints]).toEqual([null, []])
})

test('they are offered until something else stands in the folio', () => {
  expect(onlyOffered([''])).toBe(true)
  expect(onlyOffered(['V = 230∠30°', 'A^-1', ''])).toBe(true)
  expect(onlyOffered(['V = 230∠31°', ''])).toBe(false)
  expect(onlyOffered(Array.from({ length: 100 }, () => ''))).toBe(false)
})
