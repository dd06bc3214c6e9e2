import { dressValue } from './dress'

/** The pieces with a letter for their kind: p(lain), a(ngle), l(etter), ^ (power). */
function dressed(text: string, letter: 'i' | 'j' = 'j'): string {
  const signs = { plain: 'p', angle: 'a', letter: 'l', power: '^' }
  return dressValue(text, letter)
    .map(({ kind, text: part }) => `${signs[kind]}<${part}>`)
    .join('')
}

test.each([
  ['230 + j0', 'p<230 + >l<j>p<0>'],
  ['3 - 4j', 'p<3 − 4>l<j>'],
  ['5 ∠ -53.13°', 'p<5 >a<∠>p< −53.13°>'],
  ['-1.2e-7', 'p<−1.2·10>^<−7>'],
  ['1e15', 'p<1·10>^<15>'],
  ['pi/4 rad', 'p<π/4 rad>'],
  ['0.9273 rad', 'p<0.9273 rad>'],
  ['1j/3', 'p<1>l<j>p</3>'],
  ['4.7k', 'p<4.7k>'],
  ['36°52\'12"', 'p<36°52\'12">'],
  ['∞ (no direction)', 'p<∞ (no direction)>'],
])('%s', (text, expected) => expect(dressed(text)).toBe(expected))

test('the other letter is no unit', () => expect(dressed('3 + 4i', 'i')).toBe('p<3 + 4>l<i>'))

test('nothing is lost but the dress: the pieces say the same', () => {
  for (const text of ['3 - 4j', '5 ∠ -53.13°', '-1.2e-7', '(2+1/3) + j(1+1/2)']) {
    const plain = dressValue(text, 'j')
      .map((p) => p.text)
      .join('')
      .replace(/−/g, '-')
      .replace('·10', 'e')
    expect(plain).toBe(text)
  }
})
