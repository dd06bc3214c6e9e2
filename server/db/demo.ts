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
          '## The lamp of Skerry Light\nA lamp with its choke, $Z_lamp = R + j*w*L$, fed over the shore cable; a capacitor across both takes up the lagging current. On any line Ctrl+F2 shows its working: that of $I_lamp$ is a quotient by hand, by the conjugate of the divisor.',
        note: true as const,
      },
      'V = 12∠0° V  # supply',
      varied('w = 2pi*50 Hz'),
      varied('Z_lamp = 2.4 ohm + j*w*10 mH  # lamp in series with its choke'),
      varied('Z_cap = 1/(j*w*470 uF)  # capacitor across both'),
      'Z = Z_lamp || Z_cap',
      'I_lamp = V/Z_lamp',
      'I_cap = V/Z_cap',
      watched('I = I_lamp + I_cap'),
      '|I|',
      'arg(I)',
      '|I| ~~ 1.95 A  # by hand',
      '# How much of the voltage reaches the lamp',
      'Z_cable = (0.6 + 0.5j) ohm',
      'U_lamp = V*Z/(Z + Z_cable)  # voltage division',
      '# What it takes and what it gives',
      'S = V*conj(I)  # complex power',
      'P = re(S)',
      watched('Q = im(S)'),
      'cos(arg(S))  # power factor',
      '# Which capacitor brings the power factor to 0.95?',
      'sought C_1',
      'S_1 = |V|^2/conj(Z_lamp || 1/(j*w*C_1))',
      're(S_1) = 0.95*|S_1|',
      'determine near C_1 = 470 uF',
      'cos(arg(S_1)) ~~ 0.950',
      'W = P*8 h in Wh  # a night of eight hours',
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
        chains: [kept('I')],
      }),
      plane('phasors', 'Voltages and currents in one diagram, each with its scale', ['V', 'U_lamp', 'I', 'I_lamp'], {}),
      plane('impedances', 'Impedances of lamp and cable', ['Z_lamp', 'Z_cap', 'Z', 'Z_cable'], {
        re: 'R / Ω',
        im: 'X / Ω',
        components: true,
      }),
      plane('lenses', 'The three lenses of the lamp', ['turns'], { grid: 'polar', unitCircle: true }),
    ],
    sets: [
      { id: 'set-smaller', name: 'Smaller capacitor', values: { [kept('Z_cap')]: '1/(j*w*330 uF)' } },
      { id: 'set-aged', name: 'Aged lamp', values: { [kept('Z_lamp')]: '3.1 ohm + j*w*10 mH' } },
      { id: 'set-generator', name: 'Generator', values: { [kept('w')]: '2pi*60 Hz' } },
    ],
  },
  {
    title: 'Mast stays',
    conventions: {},
    lines: [
      {
        source:
          '## The mast of Skerry Light\nThree stays pull at the head of the mast, each with a force and a bearing. What is left must be taken by the mast itself. The working (Ctrl+F2) of the projection $along$ goes product by product.',
        note: true as const,
      },
      'F_1 = vec(22∠45° kN)  # windward stay',
      'F_2 = vec(18∠170° kN)  # lee stay',
      'F_3 = vec(9∠-80° kN)  # aft stay',
      'F = F_1 + F_2 + F_3',
      'R = phasor(F)  # magnitude and direction',
      'angle(F_1, F_2)  # between the two upper stays',
      'e_F = unit(F)',
      '# How much of the windward stay works along the resultant',
      'along = proj(F_1, F)',
      'dot(F_1, e_F)',
      'across = F_1 - along',
      'dot(across, F)/norm(F)^2 ~~ 0.00',
      '# In space: the moment about the foot',
      'r = [0, 0, 14] m  # the head',
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
          '## Three meshes of the shore cable\nThe mesh equations $Z*I = V$: on the diagonal the impedance of each mesh, beside it what two meshes share, with the opposite sign. The working (Ctrl+F2) of $rref(M)$ is the elimination, row by row; its button takes it to the bench.',
        note: true as const,
      },
      'Z_s = (0.6 + 0.8j) ohm  # along the cable, a mesh',
      'Z_p = -40j ohm  # across it, at each joint',
      'Z_lamp = (12 + 3j) ohm',
      'Z = [[Z_s + Z_p, -Z_p, 0], [-Z_p, Z_s + 2Z_p, -Z_p], [0, -Z_p, Z_s + Z_p + Z_lamp]]',
      'V = [230, 0, 0] V',
      'I = solve(Z, V)',
      'Z*I ~~ V  # the check',
      'norm(Z*I - V)  # the residual',
      'U_lamp = Z_lamp*I[3]  # at the lamp',
      'det(Z)',
      'cond(Z)',
      '# The same as equations, as they stand in the problem',
      'sought I_1, I_2, I_3',
      'Z_s*I_1 + Z_p*(I_1 - I_2) = V[1]  # first mesh',
      'Z_p*(I_2 - I_1) + Z_s*I_2 + Z_p*(I_2 - I_3) = 0  # second mesh',
      'Z_p*(I_3 - I_2) + (Z_s + Z_lamp)*I_3 = 0  # the mesh of the lamp',
      'determine',
      '[I_1, I_2, I_3] ~~ I  # both ways agree',
      '# The same with whole numbers, reduced row by row',
      'M = [[2, -1, 0, 5], [-1, 3, -1, 0], [0, -1, 2, 1]]',
      'rref(M)',
      'rank(M)',
    ].map(lineOf),
    plates: [
      plane('currents', 'Mesh currents', ['I']),
      plane('impedances', 'Impedances along and across the cable', ['Z_s', 'Z_p', 'Z_lamp']),
    ],
  },
  {
    title: 'Beacon drive',
    conventions: {},
    lines: [
      {
        source:
          '## The motor that turns the beacon\nState: angle, speed and current, each in its unit. The rate of change of the state is $A*x$: so the drive runs down when it is left alone. The working (Ctrl+F2) of its eigenvalues sets up the characteristic polynomial.',
        note: true as const,
      },
      'J = 0.5 kg*m^2  # what turns',
      'd = 0.25 N*m*s  # friction',
      'k = 0.6 N*m/A  # torque for each ampere',
      'L = 0.3 H',
      'R = 6 ohm',
      'A = [[0, 1, 0], [0, -d/J, k/J], [0, -k/L, -R/L]]',
      'p = eigenvalues(A)',
      'W = eigenvectors(A)',
      'A*W ~~ W*diag(p)',
      '# After a tenth of a second',
      'Phi = expm(A*0.1 s)',
      'x_0 = [0, 6 rad/s, 0]  # turning',
      'x_1 = Phi*x_0',
      'w = 0.1 to 100 rad/s per decade 60  # for the response below',
      '# The same with an unknown: the characteristic polynomial and its roots',
      'unknown s in 1/s',
      'chi = det(s*identity(3) - A)',
      'coefficients(chi) ~~ charpoly(A)',
      'lambda = roots(chi)',
      '# With a spring in the coupling it swings',
      'c = 20 N*m  # the spring, for each radian',
      'd_c = 1.2 N*m*second  # and its friction',
      'B = [[0, 1], [-c/J, -d_c/J]]',
      'chi_B = det(s*identity(2) - B)',
      'q = roots(chi_B)',
      'w_n = |q[1]|  # natural frequency',
      'damping = -re(q[1])/w_n',
      '# From a torque on the coupling to its angle',
      'G = (s + 8 rad/second)/chi_B',
      'z_G = zeros(G)',
      'p_G = poles(G)',
      'G_w = G where s = j*w',
      'max(|G_w|)',
      '# The speed control: from the voltage at the motor to the speed of the beacon',
      'B_u = [0, 0, 1/L]',
      'C_w = [[0, 1, 0]]  # the speed is what is measured',
      'P_w = transfer(A, B_u, C_w, 0, s) in rad/(V*second)  # the angle is not seen from there',
      'w_i = 0.7 rad/second',
      'C_c = 20 V*second*(1 + w_i/s)  # the controller: a gain, and an integrator',
      'L_c = C_c*P_w  # the open loop',
      'M_c = margins(L_c)',
      'T_w = closed_loop(L_c)',
      'modes(T_w)',
      't = 0 second to 2.5 second step 0.01 second',
      'y = step_response(T_w, t)  # a step of the speed that is asked for',
      'F_w = step_figures(T_w)',
      'k_c = 1  # by how much the gain is changed: drag a pole along its branch',
      'r_c = root_locus(L_c, k_c)',
      '# State feedback of the coupling: its poles where they are wanted',
      'N_c = [0, 1/J]',
      'controllability(B, N_c)',
      'K_f = pole_placement(B, N_c, [-6 + 6j, -6 - 6j]*1 rad/second)',
      'eigenvalues(B - N_c*K_f)',
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
        x: { name: '', scale: 'auto', low: null, high: null },
      },
      {
        ...freshCurve('plate-loop', ['dB', 'unwrapped'], [kept('L_c')], 'The open loop of the speed control'),
        straight: true,
      },
      freshCurve('plate-step', ['re'], [kept('y')], 'A step of the speed'),
      plane('locus', 'Its poles, as the gain grows', ['r_c'], { re: 'σ / s⁻¹', im: 'ω / s⁻¹', grid: 'damping' }),
      plane('about', 'The open loop about −1', ['L_c'], { re: 'Re', im: 'Im' }),
    ],
  },
  {
    title: 'Fog horn',
    conventions: {},
    lines: [
      {
        source:
          '## The horn of Skerry Light\nIts coil has the resistance $R$ and the inductance $L$; the moving diaphragm acts like a capacitor with a resistor beside it. Where does it sound best? The working (Ctrl+F2) of a sweep is that of the point which is read along.',
        note: true as const,
      },
      'R = 6 ohm',
      'L = 1.2 mH',
      'C_m = 330 uF  # the spring of the diaphragm',
      'R_m = 24 ohm  # what it gives to the air',
      'L_m = 9 mH  # the mass of the diaphragm',
      'f = 10 Hz to 10 kHz per decade 200',
      'w = 2pi*f',
      'Z_m = R_m || 1/(j*w*C_m) || j*w*L_m  # the diaphragm',
      'Z = R + j*w*L + Z_m',
      'H = Z_m/Z  # share of the voltage that moves it',
      '# How loud, and where it is loudest',
      'loud = dB(H)',
      'max(loud)',
      'f_0 = 1/(2pi*sqrt(L_m*C_m))  # resonance by hand',
      '# The feed: how the voltage swings, and what the coil makes of it',
      'V = 24∠30° V',
      'w_1 = 2pi*100 Hz',
      'I = V/(R + j*w_1*L)',
      't = 0 to 20 ms count 401',
      'v_t = wave(V, w_1, t)',
      'i_t = wave(I, w_1, t)',
      'P = V*e^(j*w_1*t)  # the phasor as it turns',
    ].map(lineOf),
    plates: [
      {
        ...freshCurve('plate-response', ['dB', 'unwrapped'], [kept('H')], 'What moves the diaphragm'),
        extremes: true,
      },
      plane('locus', 'Locus of the impedance from 10 Hz to 10 kHz', ['Z'], { re: 'R / Ω', im: 'X / Ω' }),
      {
        ...freshCurve('plate-waves', ['re'], ['v_t', 'i_t'].map(kept), 'Voltage and current at 100 Hz'),
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
          '## The shore cable, measured and reckoned\nThe cable was measured from the switchboard with its far end open. Beside it stands what the data sheet makes of it: $R$ and $L$ along the cable, $C$ across it. The working (Ctrl+F2) of a reckoned line is a hand calculation at one frequency.',
        note: true as const,
      },
      'cable = enclosure("shore-cable.s1p")  # 100 Hz to 1 MHz',
      'measured = cable.Z',
      'R = 0.62 ohm  # of core and return',
      'L = 480 uH',
      'C = 38 nF',
      'f = 100 Hz to 1 MHz per decade 60',
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
      },
      {
        ...freshCurve('plate-apart', ['re'], ['apart'].map(kept), 'How far the two are apart, relative, in dB'),
      },
    ],
  },
  {
    title: 'Bell buoy',
    conventions: {},
    lines: [
      {
        source:
          '## The bell buoy off Skerry Light\nIt swings on the swell like a pendulum in water. Its striker is driven by a small controller that looks at it twenty times a second. A step of the swell is one that the buoy is let go from.',
        note: true as const,
      },
      'l = 1.6 m  # to the middle of its mass',
      'g = 9.81 m/s^2',
      'w_0 = sqrt(g/l)',
      'zeta = 0.08  # the water damps it: take it in hand, and the curve follows',
      'unknown q in s  # the time, for the closed form',
      'unknown s in 1/s',
      'unknown z, K',
      'G = w_0^2/(s^2 + 2*zeta*w_0*s + w_0^2)',
      'modes(G)',
      'h = inverse_laplace(G, q)  # after a blow',
      't = 0 second to 20 second step 0.02 second',
      'y = step_response(G, t)',
      'F = step_figures(G)',
      'F.overshoot ~~ exp(-pi*zeta/sqrt(1 - zeta^2))',
      'p = poles(G)',
      '# The striker: its position follows its motor, and is sampled every 50 ms',
      'P = 3 rad/second/(s*(1 + s*0.12 second))',
      'P_z = sampled(P, 50 ms, z)',
      'C_z = 6*(z - 0.66)/(z - 0.2)  # its controller',
      'L_z = C_z*P_z',
      'M_z = margins(L_z)',
      'T_z = closed_loop(L_z)',
      'p_z = poles(T_z)',
      'modes(T_z)',
      'n = 0 second to 1.2 second step 5 ms',
      'y_z = step_response(T_z, n)  # held between the samples',
      'F_z = step_figures(T_z)',
      '# For which gain without the controller it stays stable',
      'jury((z - 1)*(z - 0.66) + K*(0.0273*z + 0.0238))',
    ].map(lineOf),
    plates: [
      {
        ...freshCurve('plate-swing-out', ['re'], [kept('y')], 'The buoy swings out, more or less damped'),
        family: { line: kept('zeta'), values: ['0.2', '0.5', '1'] },
      },
      plane('swing', 'Its poles', ['p'], { re: 'σ / s⁻¹', im: 'ω / s⁻¹', grid: 'damping' }),
      plane('striker', 'Poles of the sampled striker', ['p_z'], { grid: 'sampled', unitCircle: true }),
      freshCurve('plate-striker-step', ['re'], [kept('y_z')], 'The striker goes where it is sent'),
    ],
  },
]

/** What a shelf that is made now begins with. One that was emptied stays empty. */
export async function seedShelf(folios: Folios): Promise<void> {
  // The one to begin with is the last that was changed: it stands first on the shelf.
  for (const file of DEMO_FOLIOS.toReversed())
    await folios.create(file, file.enclosures ? new Map([[cable.enclosure.block, cable.numbers]]) : new Map())
}
