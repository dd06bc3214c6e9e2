import { drawnName, inOnePiece } from './name'

/** Names as pictures write them. */

test.each([
  ['zeta', 'ζ'],
  ['omega_n', 'ω_n'],
  ['K_p', 'K_p'],
  ['alpha1', 'α1'],
  ['Omega', 'Ω'],
  ['gain', 'gain'],
  ['T2', 'T2'],
  ['', ''],
])('%s in one piece is %s', (name, written) => expect(inOnePiece(name)).toBe(written))

test.each([
  ['I_lamp', { base: 'I', below: 'lamp' }],
  ['omega_n', { base: 'ω', below: 'n' }],
  ['p[2]', { base: 'p', below: '2' }],
  ['Z1', { base: 'Z', below: '1' }],
  ['p_z[3]', { base: 'p', below: 'z,3' }],
])('%s in two pieces', (name, pieces) => expect(drawnName(name)).toEqual(pieces))
