import { reckon } from '../testing'
import { signature } from '../signatures/definition'
import { FUNCTIONS, standardName } from './registry'

const text = (...lines: string[]): string => reckon(lines).at(-1)!.text
const number = (...lines: string[]) => {
  const { value, error } = reckon(lines).at(-1)!
  if (value?.kind !== 'number') throw new Error(error?.message ?? 'not a number')
  return value
}

describe('the examples of the registry run and give what they say', () => {
  const examples = FUNCTIONS.flatMap((f) => f.examples.map((e) => [f.name, e.entry, e.gives, e] as const))
  test.each(examples)('%s: %s gives %s', (_name, entry, gives, { before = [], enclosed }) =>
    expect(reckon([...before, entry], {}, enclosed ? [enclosed] : []).at(-1)!.text).toBe(gives),
  )
  test('every function has three, a summary and a signature', () => {
    for (const f of FUNCTIONS) {
      expect([f.name, f.examples.length]).toEqual([f.name, Math.max(3, f.examples.length)])
      expect(f.summary).toMatch(/\.$/)
      expect(signature(f)).toContain(f.infix ? ` ${f.name} ` : `${f.name}(`)
    }
  })
  test('no spelling is used twice', () => {
    const all = FUNCTIONS.flatMap((f) => [f.name, ...(f.spellings ?? [])])
    expect(new Set(all).size).toBe(all.length)
    for (const f of FUNCTIONS) for (const s of f.spellings ?? []) expect(standardName(s)).toBe(f.name)
  })
})

// Worked out with mpmath 1.3 at 60 digits; see docs/expected-values.md.
describe('values from mpmath', () => {
  test.each([
    ['sqrt(2)', 1.4142135623730951, 0.0],
    ['sqrt(3-4j)', 2.0, -1.0],
    ['cbrt(2)', 1.2599210498948732, 0.0],
    ['root(1+1j, 5)', 1.0585781527063765, 0.16766230825618095],
    ['exp(2+3j)', -7.315110094901103, 1.0427436562359045],
    ['ln(10)', 2.302585092994046, 0.0],
    ['ln(-2+1j)', 0.8047189562170501, 2.677945044588987],
    ['lg(2)', 0.3010299956639812, 0.0],
    ['lg(1j)', 0.0, 0.6821881769209207],
    ['lb(10)', 3.321928094887362, 0.0],
    ['log(7, 3)', 1.7712437491614224, 0.0],
    ['sin(20°)', 0.3420201433256687, 0.0],
    ['cos(20°)', 0.9396926207859084, 0.0],
    ['tan(20°)', 0.36397023426620234, 0.0],
    ['cot(20°)', 2.747477419454622, 0.0],
    ['sec(20°)', 1.064177772475912, 0.0],
    ['csc(20°)', 2.923804400163087, 0.0],
    ['sin(1+2j)', 3.165778513216168, 1.9596010414216058],
    ['cos(1+2j)', 2.0327230070196656, -3.0518977991518],
    ['tan(1+2j)', 0.03381282607989669, 1.0147936161466335],
    ['sinh(1+2j)', -0.4890562590412937, 1.4031192506220407],
    ['cosh(1+2j)', -0.64214812471552, 1.0686074213827783],
    ['tanh(1+2j)', 1.16673625724092, -0.24345820118572525],
    ['arsinh(2)', 1.4436354751788103, 0.0],
    ['arcosh(1.5)', 0.9624236501192069, 0.0],
    ['artanh(0.25)', 0.25541281188299536, 0.0],
    ['artanh(1 - 1e-20)', 23.37242452022043, 0.0],
    ['artanh(-1 + 1e-25)', -29.128887252705567, 0.0],
    ['arcosh(1 + 1e-20)', 1.4142135623730951e-10, 0.0],
    ['arcosh(1 - 1e-20)', 0.0, 1.4142135623730951e-10],
    ['arcosh(1 + 10^-600)', 1.414213562373095e-300, 0.0],
    ['artanh(1 - 10^-600)', 691.1221014884937, 0.0],
    ['arcsin(2+1j)', 1.0634400235777521, 1.4693517443681852],
    ['arccos(2+1j)', 0.5073563032171445, -1.4693517443681852],
    ['arctan(1+1j)', 1.0172219678978514, 0.40235947810852507],
    ['dB(0.5)', -6.020599913279624, 0.0],
    ['from_dB(-3)', 0.7079457843841379, 0.0],
    ['rms(1)', 0.7071067811865476, 0.0],
    ['peak(1)', 1.4142135623730951, 0.0],
    ['wave(3-4j, 2, 0.7)', 4.451700348654564, 0.0],
    ['(2+1j)^(0.5-2j)', 0.7256450097987714, -3.709428351970689],
    ['2^0.3', 1.2311444133449163, 0.0],
    ['(-8)^(1/3)', 1.0, 1.7320508075688772],
    ['par(10, 20, 30)', 5.454545454545454, 0.0],
    ['e^(1+1j)', 1.4686939399158851, 2.2873552871788423],
    ['cis(20°)', 0.9396926207859084, 0.3420201433256687],
    ['mean(1, 2j, 4)', 1.6666666666666667, 0.6666666666666666],
  ])('%s', (entry, re, im) => {
    const z = number(entry)
    const size = Math.hypot(re, im)
    expect(Math.hypot(z.re - re, z.im - im) / size).toBeLessThan(2e-14)
  })
})

describe('at the edges', () => {
  test.each([
    ['7/0', '∞'],
    ['-7/0', '-∞'],
    ['0/0', 'undefined'],
    ['inf - inf', 'undefined'],
    ['(1+j)/0', '∞ (no direction)'],
    ['dB(0)', '-∞'],
    ['ln(0)', '-∞'],
    ['tan(90°)', '∞'],
    ['cot(0)', '∞'],
    ['artanh(1)', '∞'],
    ['0^0', '1'],
    ['0^-1', '∞'],
    ['abs(3e200+4e200j)', '5e200'],
    ['tanh(400+1j)', '1 + 0j'],
    ['inf || 5', '5'],
    ['0 || 5', '0'],
    ['sin(inf)', 'undefined'],
    ['170!/169!', '170'],
    ['10^400/10^399', '10'],
  ])('%s is %s', (entry, expected) => expect(text(entry)).toBe(expected))
  test.each(['171!', 'exp(1000)', '1e200*1e200', 'cosh(800)', '2^10000', '10^200*(1+j)*10^200'])(
    '%s is too large, not ∞',
    (entry) => {
      expect(reckon([entry])[0]!.error!.code).toBe('too-large')
    },
  )
  test('an undefined result says why', () => {
    expect(reckon(['0/0'])[0]!.hints.map((h) => h.code)).toEqual(['undefined-result'])
  })
})

describe('exact where it can be', () => {
  test.each([
    ['0.1+0.2', '3/10'],
    ['1/3 + 1/6', '1/2'],
    ['(1/2 + j/3)^2', '5/36 + 1j/3'],
    ['sqrt(16/9)', '4/3'],
    ['sqrt(-4)', '0 + 2j'],
    ['|3+4j|', '5'],
    ['4^(1/2)', '2'],
    ['cos(60°)', '1/2'],
    ['sin(pi rad)', '0'],
    ['5∠90°', '0 + 5j'],
    ['e^(j*pi)', '-1 + 0j'],
    ['exp(j*90°)', '0 + 1j'],
    ['2pi/pi', '2'],
    ['1/(1/6 + 1/3)', '2'],
    ['6 || 3', '2'],
    ['re(1/(3+4j))', '3/25'],
    ['round(2.675, 2)', '67/25'],
    ['floor(-7/2)', '-4'],
    ['quotient(7, 3)', '2'],
    ['binom(60, 30)', '118264581564861424'],
    ['gcd(2^70, 6^40)', '1099511627776'],
  ])('%s is %s', (entry, expected) => {
    const [line] = reckon([entry], { exact: 'fraction', digits: 16 })
    expect(line!.value).toMatchObject({ kind: 'number' })
    if (expected.length < 17) expect(line!.text).toBe(expected)
    else expect(line!.value).toMatchObject({ exact: { re: { n: BigInt(expected) } } })
    expect((line!.value as { exact: unknown }).exact).not.toBeNull()
  })
  test('0.1+0.2 == 0.3 is true; a function makes a value rounded', () => {
    expect(text('0.1+0.2 == 0.3')).toBe('true')
    expect(number('sqrt(2)').exact).toBeNull()
    expect(reckon(['sqrt(2)^2 == 2'])[0]!.hints.map((h) => h.code)).toContain('equals-rounded')
  })
})

describe('bad arguments', () => {
  test.each([
    ['binom(-1, 2)', 'domain'],
    ['factorial(-1)', 'domain'],
    ['root(4, 0)', 'domain'],
    ['log(4, 1)', 'domain'],
    ['arctan(1j)', 'domain'],
    ['floor(1+2j)', 'argument-kind'],
    ['cbrt(1j)', 'argument-kind'],
    ['sin("a")', 'argument-kind'],
    ['max(1, 30°)', 'not-comparable'],
    ['degrees(1j)', 'real-needed'],
    ['7 mod 2j', 'real-needed'],
    ['"a" * 2', 'wrong-kinds'],
    ['2j * 30°', 'angle-with-complex'],
    ['1 and 2', 'truth-needed'],
    ["36°70'", 'minutes-range'],
  ])('%s: %s', (entry, code) => expect(reckon([entry])[0]!.error!.code).toBe(code))
})
