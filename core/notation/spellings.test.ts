import * as fc from 'fast-check'
import { nameAt } from './spellings'

const name = fc.stringMatching(/^[A-Za-z_ΩωΔπ][A-Za-z0-9_₀₁é]{0,9}$/)

test('a name is the text that stands there, whatever was read before it', () => {
  fc.assert(
    fc.property(fc.array(name, { minLength: 30, maxLength: 90 }), (names) => {
      const line = names.join(' + ')
      let at = 0
      for (const text of names) {
        expect(nameAt(line, at, at + text.length)).toBe(text)
        at += text.length + 3
      }
    }),
  )
})

test('names that point to one place do not take each other for the same', () => {
  // First letter, last letter and length are alike.
  const names = ['Z_lamp', 'Z_ramp', 'Zxxxxp', 'Z_lamp']
  for (const text of [...names, ...names]) expect(nameAt(`1*${text}`, 2, 2 + text.length)).toBe(text)
})

test('∞ is written for inf', () => {
  expect(nameAt('2·∞', 2, 3)).toBe('inf')
  expect(nameAt('2·x', 2, 3)).toBe('x')
})
