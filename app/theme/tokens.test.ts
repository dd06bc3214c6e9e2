import { contrast } from './contrast'
import { customProperties, THEMES } from './tokens'

describe.each(Object.entries(THEMES))('the %s theme', (_name, theme) => {
  const grounds = { paper: theme.paper, leaf: theme.leaf, rail: theme.rail }

  test.each(Object.entries(grounds))('text reads at 4.5:1 on %s', (_ground, ground) => {
    for (const text of [theme.ink, theme.quiet, theme.teal, theme.brassText, theme.error, theme.pass]) {
      expect(contrast(text, ground)).toBeGreaterThanOrEqual(4.5)
    }
  })

  test.each(Object.entries(grounds))('marks that carry meaning stand out at 3:1 on %s', (_ground, ground) => {
    for (const mark of [theme.brass, theme.edge, ...theme.hues])
      expect(contrast(mark, ground)).toBeGreaterThanOrEqual(3)
  })

  test('text on a filled control and on a selection reads at 4.5:1', () => {
    expect(contrast(theme.onTeal, theme.teal)).toBeGreaterThanOrEqual(4.5)
    expect(contrast(theme.ink, theme.select)).toBeGreaterThanOrEqual(4.5)
  })

  test('labels in a value’s hue read at 4.5:1 on the plate', () => {
    for (const hue of theme.hues) expect(contrast(hue, theme.leaf)).toBeGreaterThanOrEqual(4.5)
  })
})

test('the contrast of black on white is 21:1, as WCAG 2.2 defines it', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 10)
  // The usual worked example: #767676 is the lightest grey that passes AA on white.
  expect(contrast('#767676', '#FFFFFF')).toBeGreaterThanOrEqual(4.5)
  expect(contrast('#777777', '#FFFFFF')).toBeLessThan(4.5)
})

test('every token becomes a custom property', () => {
  const properties = customProperties(THEMES.day)
  expect(properties['--brass-text']).toBe(THEMES.day.brassText)
  expect(properties['--hue-8']).toBe(THEMES.day.hues[7])
})
