import { reckon } from '../testing'
import { unitSlip } from './slips'
import { PREFIXES, STEMS, takes, unitSymbol } from './symbols'

/** Every way to write a word in large and small letters. */
function recased(text: string): string[] {
  const [first, ...rest] = [...text]
  if (first === undefined) return ['']
  const tails = recased(rest.join(''))
  return [...new Set([first.toLowerCase(), first.toUpperCase()])].flatMap((letter) =>
    tails.map((tail) => letter + tail),
  )
}

describe('a unit in other letters', () => {
  const words = STEMS.filter(({ symbol }) => /^[A-Za-zΩ]+$/.test(symbol)).flatMap((stem) =>
    PREFIXES.filter((prefix) => takes(stem, prefix)).flatMap((prefix) =>
      recased(stem.typed ?? stem.symbol).map((text) => [`${prefix.typed}${text}`, prefix.exponent] as const),
    ),
  )
  test('keeps the prefix that was typed: no fix is another by a factor that nobody wrote', () => {
    let tried = 0
    for (const [word, exponent] of words) {
      const slip = unitSymbol(word) ? null : unitSlip(word)
      if (slip?.why !== 'case') continue
      tried += 1
      for (const meant of [slip.meant, ...(slip.also ?? [])]) {
        const found = unitSymbol(meant)!
        // A word can also be one unit as a whole: pa is pA, or Pa.
        const whole = found.prefix === 0 && found.symbol.toLowerCase() === word.toLowerCase()
        expect([word, meant, whole ? exponent : found.prefix]).toEqual([word, meant, exponent])
      }
    }
    expect(tried).toBeGreaterThan(300)
  })

  test.each([
    ['100 mOhm', ['100 mΩ'], 0.1], ['5 mv', ['5 mV'], 0.005], ['3 ma', ['3 mA'], 0.003], ['1 mh', ['1 mH'], 0.001],
    ['2 mw', ['2 mW'], 0.002], ['5 mf', ['5 mF'], 0.005], ['5 Ms', ['5M s'], 5e6], ['2 ks', ['2k s'], 2000],
    ['12 Kohm', ['12 kΩ'], 12000], ['5 UA', ['5 µA'], 5e-6], ['2 MHZ', ['2 MHz'], 2e6], ['5 Nm', ['5 N*m'], 5],
    ['3 Vs', ['3 V*s'], 3], ['5 kohms', ['5 kΩ'], 5000], ['3 microF', ['3 µF'], 3e-6], ['2 milliH', ['2 mH'], 0.002], ['2 kNm', ['2 kN*m'], 2000], ['5 pa', ['5 pA', '5 Pa'], 5e-12], ['7 KHZ', ['7 kHz'], 7000],
    ['20 V + 5%', ['20 V*(1 + 5/100)'], 21], ['20 V - 10 %', ['20 V*(1 - 10/100)'], 18],
  ])('%s offers %s', (line, expected, value) => {
    const { problem } = reckon([line])[0]!.view
    const fixed = problem!.fixes.map(({ replacement }) => line.slice(0, problem!.from) + replacement + line.slice(problem!.to)) // prettier-ignore
    expect(fixed).toEqual(expected)
    const found = reckon([fixed[0]!])[0]!.value
    const inner = found?.kind === 'quantity' ? found.value : found
    expect(inner?.kind === 'number' ? inner.re : NaN).toBeCloseTo(value, 12)
  }) // prettier-ignore
})
