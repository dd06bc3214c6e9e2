import type { FolioFile } from '../../shared/folio'
import { freshCurve, freshPlate } from '../../shared/plate'
import type { PlanePlate } from '../../shared/plate'
import type { Folios } from './folios'
import { shoreCable } from './shoreCable'

/** A line of a demo folio; one that keeps a name can be meant by it in the plates. */
function lineOf(line: string | FolioFile['lines'][number]): FolioFile['lines'][number] {
  if (typeof line !== 'string') return line
  const name = /^(\w+)\s*=/.exec(line)?.[1]
  return name === undefined ? { source: line } : { id: kept(name), source: line }
}

/** The same with a part in the runs. */
const varied = (line: string): FolioFile['lines'][number] => ({ ...lineOf(line), varied: true })
const watched = (line: string): FolioFile['lines'][number] => ({ ...lineOf(line), watched: true })

const kept = (name: string): string => `kept-under-${name}`

/** A plane plate with these values. */
function plane(name: string, caption: string, values: readonly string[], more: Partial<PlanePlate> = {}): PlanePlate {
  return { ...freshPlate(`plate-${name}`, false), caption, on: values.map(kept), ...more }
}

const cable = shoreCable()

/** Folios that an empty shelf starts with: the story of Skerry Light, all figures made up. */
export const DEMO_FOLIOS: readonly FolioFile[] = [
  {
    title: 'Lamp circuit',
    conventions: { place: 'before' },
    lines: [
      {
        source:
          '## The lamp of Skerry Light\nA lamp with its choke, $Z_lamp = R + j*w*L$, fed over the shore cable; a capacitor across both takes up the lagging current.',
        note: true as const,
      },
      'V = 12∠0°  # supply, in volts',
      varied('w = 2pi*50'),
      varied('Z_lamp = 2.4 + j*w*10m  # lamp in series with its choke'),
      varied('Z_cap = 1/(j*w*470u)  # capacitor across both'),
      'Z = Z_lamp || Z_cap',
      'I_lamp = V/Z_lamp',
      'I_cap = V/Z_cap',
      watched('I = I_lamp + I_cap'),
      '|I|',
      'arg(I)',
      '|I| ~~ 1.95  # by hand: 1.95 A',
      '# How much of the voltage reaches the lamp',
      'Z_cable = 0.6 + 0.5j',
      'U_lamp = V*Z/(Z + Z_cable)  # voltage division',
      '# What it takes and what it gives',
      'V*conj(I)  # complex power, in volt-amperes',
      'P = re(V*conj(I))',
      watched('Q = im(V*conj(I))'),
      'cos(arg(V*conj(I)))  # power factor',
      '# How lines are read',
      'part = 0.1 + 0.2  # kept exactly, as 3/10',
      'bearing = 36°52\'12"  # to the harbour light',
      'cos(60)  # a bare number, read in degrees here',
      'loss = 1/2k  # one half, or one over two thousand?',
      'sum(1/n for n = 1 to 6)  # the first six flashes',
      'turns = everyroot(1, 3)  # the three lenses of the lamp',
    ].map(lineOf),
    plates: [
      plane('currents', 'Currents of the lamp circuit, tip to tail', ['I_lamp', 'I_cap', 'I'], {
        re: 'Re / A',
        im: 'Im / A',
        chains: [kept('I')],
      }),
      plane('impedances', 'Impedances of lamp and cable', ['Z_lamp', 'Z_cap', 'Z', 'Z_cable'], {
        re: 'R / Ω',
        im: 'X / Ω',
        components: true,
      }),
      plane('lenses', 'The three lenses of the lamp', ['turns'], { grid: 'polar', unitCircle: true }),
    ],
    sets: [
      { id: 'set-smaller', name: 'Smaller capacitor', values: { [kept('Z_cap')]: '1/(j*w*330u)' } },
      { id: 'set-aged', name: 'Aged lamp', values: { [kept('Z_lamp')]: '3.1 + j*w*10m' } },
      { id: 'set-generator', name: 'Generator', values: { [kept('w')]: '2pi*60' } },
    ],
  },
  {
    title: 'Mast stays',
    conventions: {},
    lines: [
      {
        source:
          '## The mast of Skerry Light\nThree stays pull at the head of the mast, each with a force in kilonewtons and a bearing. What is left must be taken by the mast itself.',
        note: true as const,
      },
      'F_1 = vec(22∠45°)  # windward stay',
      'F_2 = vec(18∠170°)  # lee stay',
      'F_3 = vec(9∠-80°)  # aft stay',
      'F = F_1 + F_2 + F_3',
      'R = phasor(F)  # magnitude and direction',
      'angle(F_1, F_2)  # between the two upper stays',
      'e_F = unit(F)',
      '# How much of the windward stay works along the resultant',
      'along = proj(F_1, F)',
      'dot(F_1, e_F)',
      'across = F_1 - along',
      'dot(across, F) ~~ 0.00',
      '# In space: the moment about the foot, in kilonewton metres',
      'r = [0, 0, 14]  # the head, in metres',
      'cross(r, [F[1], F[2], 0])',
    ].map(lineOf),
    plates: [
      plane('forces', 'Forces at the head of the mast, tip to tail', ['F_1', 'F_2', 'F_3', 'F'], {
        re: 'east / kN',
        im: 'north / kN',
        grid: 'polar',
        chains: [kept('F')],
      }),
      plane('along', 'The windward stay along and across the resultant', ['F_1', 'along', 'across']),
    ],
  },
  {
    title: 'Cable meshes',
    conventions: { place: 'before' },
    lines: [
      {
        source:
          '## Three meshes of the shore cable\nThe mesh equations $Z*I = V$: on the diagonal the impedance of each mesh, beside it what two meshes share, with the opposite sign.',
        note: true as const,
      },
      'Z_s = 0.6 + 0.8j  # along the cable, a mesh',
      'Z_p = -40j  # across it, at each joint',
      'Z_lamp = 12 + 3j',
      'Z = [[Z_s + Z_p, -Z_p, 0], [-Z_p, Z_s + 2Z_p, -Z_p], [0, -Z_p, Z_s + Z_p + Z_lamp]]',
      'V = [230, 0, 0]',
      'I = solve(Z, V)',
      'Z*I ~~ V  # the check',
      'norm(Z*I - V)  # the residual',
      'U_lamp = Z_lamp*I[3]  # at the lamp',
      'det(Z)',
      'cond(Z)',
      '# The same with whole numbers, reduced row by row',
      'M = [[2, -1, 0, 5], [-1, 3, -1, 0], [0, -1, 2, 1]]',
      'rref(M)',
      'rank(M)',
    ].map(lineOf),
    plates: [
      plane('currents', 'Mesh currents', ['I'], { re: 'Re / A', im: 'Im / A' }),
      plane('impedances', 'Impedances along and across the cable', ['Z_s', 'Z_p', 'Z_lamp']),
    ],
  },
  {
    title: 'Beacon drive',
    conventions: {},
    lines: [
      {
        source:
          '## The motor that turns the beacon\nState: angle, speed and current. The rate of change of the state is $A*x$: so the drive runs down when it is left alone.',
        note: true as const,
      },
      'A = [[0, 1, 0], [0, -0.5, 1.2], [0, -2, -20]]',
      'p = eigenvalues(A)',
      'W = eigenvectors(A)',
      'A*W ~~ W*diag(p)',
      '# After a tenth of a second',
      'Phi = expm(0.1A)',
      'x_0 = [0, 6, 0]  # turning at 6 radians a second',
      'x_1 = Phi*x_0',
      '# The same with an unknown: the characteristic polynomial and its roots',
      'unknown s',
      'chi = det(s*identity(3) - A)',
      'coefficients(chi) ~~ charpoly(A)',
      'lambda = roots(chi)',
      '# With a spring in the coupling it swings',
      'B = [[0, 1], [-40, -2.4]]',
      'chi_B = det(s*identity(2) - B)',
      'q = roots(chi_B)',
      'w_n = |q[1]|  # natural frequency',
      'damping = -re(q[1])/w_n',
      '# From a torque on the coupling to its angle',
      'G = (s + 8)/chi_B',
      'z_G = zeros(G)',
      'p_G = poles(G)',
      'w = 0.1 to 100 per decade 60',
      'G_w = G where s = j*w',
      'max(|G_w|)',
    ].map(lineOf),
    plates: [
      plane('drive', 'Poles of the drive', ['p'], { re: 'σ / s⁻¹', im: 'ω / s⁻¹' }),
      plane('spring', 'Poles and zero with a spring in the coupling', ['p_G', 'z_G'], {
        re: 'σ / s⁻¹',
        im: 'ω / s⁻¹',
        grid: 'polar',
      }),
      {
        ...freshCurve('plate-response', ['dB', 'unwrapped'], [kept('G_w')], 'From torque to angle'),
        x: { name: 'ω / s⁻¹', scale: 'auto', low: null, high: null },
      },
    ],
  },
  {
    title: 'Fog horn',
    conventions: {},
    lines: [
      {
        source:
          '## The horn of Skerry Light\nIts coil has the resistance $R$ and the inductance $L$; the moving diaphragm acts like a capacitor with a resistor beside it. Where does it sound best?',
        note: true as const,
      },
      'R = 6',
      'L = 1.2m',
      'C_m = 330u  # the spring of the diaphragm',
      'R_m = 24  # what it gives to the air',
      'L_m = 9m  # the mass of the diaphragm',
      'f = 10 to 10k per decade 200',
      'w = 2pi*f',
      'Z_m = R_m || 1/(j*w*C_m) || j*w*L_m  # the diaphragm',
      'Z = R + j*w*L + Z_m',
      'H = Z_m/Z  # share of the voltage that moves it',
      '# How loud, and where it is loudest',
      'loud = dB(H)',
      'max(loud)',
      'f_0 = 1/(2pi*sqrt(L_m*C_m))  # resonance by hand',
      '# The feed: how the voltage swings, and what the coil makes of it',
      'V = 24∠30°',
      'I = V/(R + j*2pi*100*L)  # at 100 Hz',
      't = 0 to 20m count 401',
      'v_t = wave(V, 2pi*100, t)',
      'i_t = wave(I, 2pi*100, t)',
      'P = V*e^(j*2pi*100*t)  # the phasor as it turns',
    ].map(lineOf),
    plates: [
      {
        ...freshCurve('plate-response', ['dB', 'unwrapped'], [kept('H')], 'What moves the diaphragm'),
        x: { name: 'f / Hz', scale: 'auto', low: null, high: null },
        extremes: true,
      },
      plane('locus', 'Locus of the impedance from 10 Hz to 10 kHz', ['Z'], { re: 'R / Ω', im: 'X / Ω' }),
      {
        ...freshCurve('plate-waves', ['re'], ['v_t', 'i_t'].map(kept), 'Voltage and current at 100 Hz'),
        x: { name: 't / s', scale: 'auto', low: null, high: null },
        number: { name: 'v / V, i / A', log: false, low: null, high: null },
      },
      plane('phasor', 'The phasor of the voltage as it turns', ['P', 'V'], { grid: 'polar' }),
    ],
  },
  {
    title: 'Shore cable measured',
    conventions: {},
    enclosures: [cable.enclosure],
    head: { course: 'Measurement practice', sheet: '6', date: '' },
    lines: [
      {
        source:
          '## The shore cable, measured and reckoned\nThe cable was measured from the switchboard with its far end open. Beside it stands what the data sheet makes of it: $R$ and $L$ along the cable, $C$ across it.',
        note: true as const,
      },
      'cable = enclosure("shore-cable.s1p")  # 100 Hz to 1 MHz',
      'measured = cable.Z',
      'R = 0.62  # of core and return, in ohms',
      'L = 480u',
      'C = 38n',
      'f = 100 to 1M per decade 60',
      'Z = (R + 2pi*j*f*L) || 1/(2pi*j*f*C)',
      '# On the points of the measurement',
      'reckoned = Z along cable.f',
      'difference = measured - reckoned',
      { ...lineOf('apart = dB(difference/reckoned)'), answer: '6 a' },
      'max(apart)  # the worst point, near resonance',
      { ...lineOf('f_0 = 1/(2pi*sqrt(L*C))'), answer: '6 b' },
      '# Far below resonance the data sheet is good to a few per cent',
      'abs(measured[5]) ~~ abs(reckoned[5]) within 5%',
    ].map(lineOf),
    plates: [
      {
        ...freshCurve(
          'plate-cable',
          ['dB', 'angle'],
          ['measured', 'reckoned'].map(kept),
          'Impedance of the cable, measured and reckoned',
        ),
        x: { name: 'f / Hz', scale: 'auto', low: null, high: null },
      },
      {
        ...freshCurve('plate-apart', ['re'], ['apart'].map(kept), 'How far the two are apart, relative, in dB'),
        x: { name: 'f / Hz', scale: 'auto', low: null, high: null },
      },
    ],
  },
]

export async function seedEmptyShelf(folios: Folios): Promise<void> {
  if ((await folios.count()) > 0) return
  // The one to begin with is the last that was changed: it stands first on the shelf.
  for (const file of DEMO_FOLIOS.toReversed())
    await folios.create(file, file.enclosures ? new Map([[cable.enclosure.block, cable.numbers]]) : new Map())
}
