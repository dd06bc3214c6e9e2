import type { Example } from '../signatures/definition'

/** The chapter of the handbook on the notation: how a line is written and read. Every example runs. */
export interface Topic {
  readonly id: string
  readonly title: string
  readonly text: string
  readonly examples: readonly Example[]
}

/** A step of the tour: what it shows, and the lines that show it, each with what it gives where that is short. */
export interface TourStep {
  readonly says: string
  readonly lines: readonly Example[]
}

const example = (entry: string, gives: string): Example => ({ entry, gives })

/** The first five minutes: one small problem, line after line; each step goes on from those before it. */
export const TOUR: readonly TourStep[] = [
  {
    says: 'A phasor is a magnitude and an angle. ∠ is typed /_ and ° is typed deg. Both forms of the value are shown, and its direction on a dial.',
    lines: [example('V = 230∠30° V', '(199.19 + 115j) V')],
  },
  {
    says: 'An impedance, kept under a name. j before or behind the digits is the imaginary unit; a unit stands behind a space, and goes on into every result.',
    lines: [example('Z = (12 + 5j) ohm', '(12 + 5j) Ω')],
  },
  {
    says: 'Names stand for their values. Click the line of Z afterwards and change it: I follows, on the plane as well.',
    lines: [example('I = V/Z', '(17.546 + 2.2726j) A')],
  },
  {
    says: 'An angle always carries its unit. A bare number is read in the unit of the conventions above, and the reading says so.',
    lines: [example('arg(I)', '7.3801°'), example('sin(30)', '0.5')],
  },
  {
    says: 'Check what you reckoned by hand: ~~ says to how many figures the two agree.',
    lines: [example('abs(I) ~~ 17.69 A', 'agrees to 4 significant figures')],
  },
  {
    says: 'A matrix is written by rows; solve gives the vector of the unknowns.',
    lines: [
      example('A = [[8 + 2j, -4], [-4, 9 - 1j]]', ''),
      example('solve(A, [24, 0])', '[3.5473 - 1.0254j, 1.6074 - 0.27714j]'),
    ],
  },
  {
    says: 'A sweep is one quantity with many values, and so is whatever is made of it. The menu of its line draws curves or the locus.',
    lines: [example('f = 10 to 10k per decade 20', ''), example('H = 1/(1 + j*f/500)', '')],
  },
]

export const TOPICS: readonly Topic[] = [
  {
    id: 'lines',
    title: 'Lines and names',
    text: 'A line is an entry: it is read, reckoned and shown at once. With a name and = before it, its value is kept under that name for the lines below. What follows # is a remark. prev is the value of the line above.',
    examples: [example('Z = 3 + 4j', '3 + 4j'), example('12/5  # a remark', '2.4')],
  },
  {
    id: 'imaginary',
    title: 'Imaginary numbers',
    text: 'The imaginary unit is j or i, as the conventions say. It stands behind the digits or before them. A power belongs to the letter: 4j^2 is 4·j².',
    examples: [example('3 + 4j', '3 + 4j'), example('3 + j4', '3 + 4j'), example('4j^2', '-4 + 0j')],
  },
  {
    id: 'units',
    title: 'Units',
    text: 'A unit stands behind a number, a bracket or a call, after a space: 12 V, 4.7 kohm (kΩ), 33 nF, 9.81 m/s^2, (3 + 4j) ohm. It travels through every operation and is checked: what does not go together is refused, with what each side is. Products of units are joined by *, · or a space; what is below the slash stands in brackets where it is more than one. A number with its unit counts as one: 10 V/2 A is 5 Ω. Lines without units stay plain numbers.',
    examples: [
      example('12 V / 3 A', '4 Ω'),
      example('230∠30° V / ((12 + 5j) ohm)', '(17.546 + 2.2726j) A'),
      example('[22, 16] N', '[22, 16] N'),
      example('5 kWh in J', '18000000 J'),
      example('90 km/h in m/s', '25 m/s'),
      example('50 mH * 314 rad/s', '15.7 Ω'),
    ],
  },
  {
    id: 'units-and-names',
    title: 'Units and names',
    text: 'Behind a number and a space a unit is read, even where a name is spelled the same; the line says so, and 10*V is the product. Without a space, 2V is two times the kept V. An unknown or a parameter is always a factor. Where both readings are likely the line is refused and offers them. The name of a unit written out, as in 5 second, is never a name of yours.',
    examples: [
      { entry: '10*V', gives: '50', before: ['V = 5'] },
      { entry: '10 V', gives: '10 V', before: ['V = 5'] },
      { entry: '2 s + 1', gives: '2s + 1', before: ['unknown s'] },
    ],
  },
  {
    id: 'units-of-angles',
    title: 'Radians and turns in units',
    text: 'rad/s is an angle rate, Hz and r/min count turns a second: 2π times a frequency is an angle rate, an angle rate over 2π a frequency, and the two are not added. Only a π that is written does so, or a kept number such as k = 2pi; 3.14 is a number like any other. Where the units of ω·t cancel, radians are left, which sin, cos and ∠ take as they are in every convention. One over a time constant, in 1/s, says neither: it is shown so, and neither added to hertz nor compared with them.',
    examples: [
      example('2pi*50 Hz', '314.16 rad/s'),
      example('2pi*1500 r/min', '157.08 rad/s'),
      { entry: 'sin(w*1 ms)', gives: '0.30902', before: ['w = 2pi*50 Hz'] },
      example('1/(2pi*sqrt(10 mH*2 uF))', '1.1254 kHz'),
      example('1/(1 kohm*2 uF)', '500 s⁻¹'),
    ],
  },
  {
    id: 'units-shown',
    title: 'How results are shown',
    text: 'A result is shown in the unit that it was written in, else in the named unit of what it is, with the prefix that brings it to 0.1 … 1000; in the styles sci and eng with powers of ten instead. in at the end of a line asks for another. Volts times amperes are W, with a conjugate among the factors VA; its real part is W, its imaginary part var. A check counts in the unit that is written. The last unit of a range holds for its bare numbers.',
    examples: [
      example('230 V * 0.1 A', '23 W'),
      example('230 V * conj((1 - 2j) A)', '(230 + 460j) VA'),
      example('im(230 V * conj((1 - 2j) A))', '460 var'),
      example('12 N * 3 m', '36 N·m'),
      example('1.9496 A ~~ 1.95 A', 'agrees to 3 significant figures'),
      example('0 to 10 ms step 5', '3 points, 0 … 10 ms'),
    ],
  },
  {
    id: 'polar',
    title: 'Polar form',
    text: 'Magnitude ∠ angle. On a plain keyboard ∠ is typed /_. The sign binds tighter than × and ÷ and looser than a power, so that a quotient of two phasors needs no brackets.',
    examples: [
      example('5∠90°', '0 + 5j'),
      example('10∠30° / 2∠-15°', '3.5355 + 3.5355j'),
      example('230/_0', '230 + 0j'),
    ],
  },
  {
    id: 'angles',
    title: 'Angles and their unit',
    text: 'An angle carries its unit: 30°, 0.5 rad, 36°52\'12". A bare number where an angle is needed is read in the unit of the conventions, and the reading shows it; such a line is marked and can have the unit written in.',
    examples: [example('sin(30°)', '0.5'), example('sin(pi/6 rad)', '0.5'), example('arg(1 + 1j)', '45°')],
  },
  {
    id: 'precedence',
    title: 'What binds tighter',
    text: 'From tight to loose: calls, entries and units; powers, from the right; ∠; the sign; × ÷ mod from the left, and a factor right behind digits; parallel ||; + −; comparisons; not, and, or. The grouping switch shows every bracket that was supplied.',
    examples: [example('-2^2', '-4'), example('2^3^2', '512'), example('1/2*4', '2'), example('6 || 3 + 1', '3')],
  },
  {
    id: 'prefixes',
    title: 'Prefixes',
    text: 'T G M k m u n p f right behind digits are the prefixes of SI; 4k7 is 4.7k as on a resistor. A name that is kept comes before a prefix.',
    examples: [example('4.7k', '4700'), example('4k7', '4700'), example('2*10m', '0.02')],
  },
  {
    id: 'exact',
    title: 'Exact and rounded',
    text: 'Whole numbers, fractions and decimals stay exact through + − × ÷ and whole powers, also with imaginary parts. Beyond that, numbers are rounded to about 16 digits. The mark before a result tells which it is.',
    examples: [example('0.1 + 0.2 == 0.3', 'true'), example('(1/3 + 1j)*3', '1 + 3j')],
  },
  {
    id: 'checks',
    title: 'Checks',
    text: 'a ~~ b compares with a value reckoned by hand and says to how many figures they agree. Within half a unit of the last written place it passes; within 1% and within 0.01 say it otherwise.',
    examples: [example('2/3 ~~ 0.667', 'agrees to 3 significant figures')],
  },
  {
    id: 'bars',
    title: 'Bars and parallel combination',
    text: '|z| is the magnitude, |v| the length of a vector. Between two values || is the parallel combination 1/(1/a + 1/b).',
    examples: [example('|3 + 4j|', '5'), example('6 || 3', '2')],
  },
  {
    id: 'own-functions',
    title: 'Functions of your own',
    text: 'f(x) = … defines a function. Other names in it have the value they have at that line.',
    examples: [example('sum(k^2 for k = 1 to 4)', '30')],
  },
  {
    id: 'rows',
    title: 'Rows of values',
    text: '[1, 2, 3] is a vector; [f(k) for k = 1 to n] builds one, with step s behind it if the step is not 1. Functions of a number apply to every entry. v[2] is the second entry.',
    examples: [example('[k^2 for k = 1 to 4]', '[1, 4, 9, 16]'), example('[10, 20, 30][2]', '20')],
  },
  {
    id: 'sweep-notation',
    title: 'Sweeps',
    text: 'A range makes a sweep, one quantity with many values: 0 to 10, 0 to 1 step 0.1, -1 to 1 count 201, 10 to 100k per decade 50. Whatever is computed from it is a sweep of as many results, also in vectors and matrices. Two sweeps meet point by point. H[3] and H[last] pick a point; of a sweep of vectors, v[3] is the third entry at every point. Under a curve or a locus any value can be typed at which all lines are read along, between the points too.',
    examples: [
      example('0 to 1 step 0.5', '3 points, 0 … 1'),
      { before: ['w = 1 to 3'], entry: '1/(1 + j*w)', gives: '3 points, 0.5 - 0.5j … 0.1 - 0.3j' },
      { before: ['t = 0 to 4'], entry: 'max(t^2)', gives: '16' },
    ],
  },
  {
    id: 'working',
    title: 'Working: how a result comes about',
    text: 'Ctrl+F2, or Show the working in the menu of a line: the leaf Working shows how its value follows, one rule at a time, in the order in which the operations bind. Each step says its rule with the formula, what stood with the term that is dealt with marked, and what stands then; = where the figures on show are the whole of it, ≈ where they are rounded, ⇔ between equations, ~ between matrices of which one comes from the other by row operations. Three depths: short is one line of letters, one of figures and the result; by hand opens complex arithmetic, determinants, eliminations and the rest up; all adds every intermediate. Products and quotients of two polar values go on in polar form, sums in rectangular form; where there are several ways (the other form, Sarrus, Cramer, elimination) you choose. One at a time lets you try each step first. Figures are shown to the digits of the folio and used in full: where the figures on show would lead elsewhere, that is said. A working goes into the folio as a note, and to others as LaTeX; an elimination can be taken to the bench; a sweep is worked at the point that is read along. Beyond 3 × 3 eigenvalues, and beyond 6 × 6 eliminations, are not written out.',
    examples: [
      example('(3 + 4j)/(1 - 2j)', '-1 + 2j'),
      example('inv([[1, 2], [3, 4]])', '[[-2, 1], [1.5, -0.5]]'),
      example('arg(-3 - 4j)', '-126.87°'),
    ],
  },
  {
    id: 'check-my-working',
    title: 'Check my working',
    text: 'Select the lines of a hand calculation and choose Check as a working, or type it into the leaf Working under check mine: line after line, or parted by =. Each link is checked: equal, equal within the figures that are written (a decimal stands for what rounds to it; a whole number does so behind ≈), or broken. Decimals of the first line count as given; where a link holds only if they are rounded themselves, that is said. The first link that breaks is marked, and a slip is named where it gives just the wrong figure: the sign of j·j, a forgotten conjugate, degrees for radians, the wrong quadrant, the parts of a magnitude added, parallel as series, rows for columns, a minus before a bracket, −2² for (−2)², a prefix, a factor 2π, √2 or √3, the reciprocal, a rounded figure carried on. Equations in an unknown, one a line, are compared by their solutions.',
    examples: [{ before: ['Z = 3 + 4j'], entry: 'abs(Z) ~~ 5.0', gives: 'agrees to 2 significant figures' }],
  },
  {
    id: 'runs',
    title: 'Runs: the same with other numbers',
    text: 'In the menu of a line: vary it, or watch it. The leaf Runs (Ctrl+F8) is an account of both: the varied lines above the double rule, what is watched below it, and a column for each set of values, up to eight. An empty cell keeps the value of the folio; what changes is told in both forms. A set can be made the values of the folio, and the account goes out as CSV and onto the sheet.',
    examples: [{ before: ['R = 12'], entry: '230/R', gives: '19.167' }],
  },
  {
    id: 'measured-data',
    title: 'Measured data and files',
    text: 'A file of measurements is kept with the folio as an enclosure: open it under Exchange, drop it on the ledger, or paste a table. A line takes it up, and its columns are parts that are sweeps: lamp = enclosure("lamp.s1p"), then lamp.f and lamp.Z. Z along f puts a sweep on the points of another, by straight lines between its own points; outside of them it is undefined. What an instrument could not measure is undefined, too. The sheet that is handed in, and files for others (LaTeX, Markdown, CSV, Matrix Market, Touchstone), are under Exchange.',
    examples: [
      { before: ['a = 0 to 4', 'y = a^2', 'x = 0.5 to 3.5'], entry: 'y along x', gives: '4 points, 0.5 … 12.5' },
    ],
  },
  {
    id: 'unknowns',
    title: 'Unknowns and polynomials',
    text: 'unknown s, a makes names algebraic: products are multiplied out and like terms collected. p where s = 2j, a = 1 puts values in, all at once: numbers, sweeps, other polynomials, or for a single unknown a square matrix. A ratio in one unknown is brought to lowest terms where its coefficients are exact.',
    examples: [
      { before: ['unknown s'], entry: '(s + 1)*(s - 2)', gives: 's^2 - s - 2' },
      { before: ['unknown s'], entry: '(s + 2)/(s^2 + 3s + 2)', gives: '1/(s + 1)' },
      { before: ['unknown s'], entry: 's^2 + 1 where s = 2j', gives: '-3 + 0j' },
    ],
  },
  {
    id: 'equations',
    title: 'Equations, as the problem gives them',
    text: 'sought I1, I2 opens a group of equations, determine closes it. In between, a line with one = and a sought name in it is an equation, whatever stands on its sides; one other name on the left of = is defined as ever, also in terms of what is sought. The brace holds the group together, and its equations are numbered. From determine on the sought names are kept like any others, with both forms, in the index and on plates. Linear equations are solved exactly where their coefficients are exact; these may be complex, have units (what is sought measures follows from the equations), run along a sweep, or hold an unknown; between vectors and matrices, Z*I = V is solved as a whole. Too few equations leave names free, and the solution is given in terms of those; of equations that contradict one another the smallest set of lines is named. In the menu of determine: the bench, with the sought names over the columns; its working is the elimination.',
    examples: [
      {
        before: ['sought I1, I2', '10*I1 - 6*I2 = 12', '-6*I1 + 18*I2 = 0'],
        entry: 'determine',
        gives: 'I1 = 1.5, I2 = 0.5',
      },
      { before: ['sought I', '(3 + 4j) ohm*I = 10 V'], entry: 'determine', gives: 'I = (1.2 - 1.6j) A' },
      { before: ['sought x, y', 'x + y = 3', '2*x + 2*y = 6'], entry: 'determine', gives: 'x = -y + 3, y = y' },
      { before: ['sought I', 'U = 6*I', 'U + 4*I = 20', 'determine'], entry: 'U', gives: '12' },
      { before: ['Z = [[3, 1], [1, 2]]', 'sought v', 'Z*v = [5, 5]'], entry: 'determine', gives: 'v = [1, 2]' },
    ],
  },
  {
    id: 'equations-beyond',
    title: 'Equations that are not linear',
    text: 'One polynomial equation has all its roots, with their multiplicities; linear equations beside it are put in first. Several solutions make a sweep over them, so that what belongs together stays together, in the order of real, then imaginary part; determine near I1 = 2 A picks the nearest. Equations with functions in them are searched: Newton’s method with exact derivatives from many starts, over the real numbers unless a start is complex. determine from t = 0 to 5 ms looks between bounds, which what repeats itself needs. Every solution is put into both sides before it is shown; where others cannot be excluded, that is said.',
    examples: [
      { before: ['sought x', 'x^2 = 2x + 8'], entry: 'determine', gives: 'x = 2 points, -2 … 4' },
      {
        before: ['sought V, I', 'V = 24 V - 2 ohm*I', 'V*I = 40 W'],
        entry: 'determine near I = 1 A',
        gives: 'V = 20 V, I = 2 A',
      },
      { before: ['sought t', 'e^(-t/(5 ms)) = 0.1'], entry: 'determine', gives: 't = 11.513 ms' },
      {
        before: ['sought w', 'abs(1/(1 + j*w*1 ms)) = 1/sqrt(2)'],
        entry: 'determine from w = 0 to 1e6 rad/s',
        gives: 'w = 1000 rad/s',
      },
      { before: ['sought phi', '5*sin(phi) = 2.5'], entry: 'determine from phi = 0° to 90°', gives: 'phi = 30°' },
    ],
  },
  {
    id: 'control',
    title: 'Control',
    text: 'A ratio of polynomials in one unknown is a transfer function; nothing is declared. An unknown that begins with z is that of samples. closed_loop(G, H) is G/(1 + G·H), step_response and impulse_response take a time or a sweep of times, margins(L) the open loop. With rounded coefficients a ratio keeps its factors, so that the same ones cancel; where factors of different lines do, the pole that goes is named. e^(-s*T) is a delay. Poles, residues and crossovers are worked out to many digits or as proved roots, never read off a grid. The menu of a line draws the frequency response (Alt+,) and the locus about −1 (Alt+-). Under Plate a frequency response in s has its straight lines and corners on request: the magnitude bends by 20 dB a decade at |p| of each pole and zero, the angle goes over by 90° between |p|·10^−ζ and |p|·10^ζ, with ζ = |Re p|/|p|. root_locus(L, k) on a plane shows all branches, and its poles can be dragged along them where k is a plain number. Ctrl+F7 takes a number of a line in hand.',
    examples: [
      { before: ['unknown s', 'P = 4/(s*(s + 2))'], entry: 'closed_loop(P)', gives: '4/(s^2 + 2s + 4)' },
      { before: ['unknown s', 'T = 4/(s^2 + 2s + 4)'], entry: 'step_figures(T).overshoot', gives: '0.16303' },
      { before: ['unknown s', 'L = 10/(s*(s + 1)*(s + 5))'], entry: 'margins(L).phase', gives: '25.39°' },
      { before: ['unknown s, t'], entry: 'inverse_laplace(10/(s*(s + 5)), t)', gives: '2 - 2*e^(-5*t)' },
      { before: ['unknown s'], entry: '2/(s + 1)*e^(-0.5s)', gives: '2/(s + 1)*e^(-0.5s)' },
      { before: ['unknown s in 1/s', 'tau = 0.2 second', 'G = 3 V/(1 + s*tau)'], entry: 'step_response(G, 0.2 second)', gives: '1.8964 V' }, // prettier-ignore
    ],
  },
  {
    id: 'families',
    title: 'The vernier and families',
    text: 'Any real number of a line can be taken in hand (Ctrl+F7, or the menu of the line): it is underlined, and a scale stands under the plate, on a phone above the foot bar. Arrows go one step, with Shift ten; the range and the step can be typed; Enter lets go, Escape gives the line back. Everything that depends on it follows. Under Plate a family shows the same curve, locus or poles for several values of a number that a line keeps: one hue, its members told apart by their dashes, which the caption lists, and by the value beside each.',
    examples: [{ before: ['unknown s', 'zeta = 0.2'], entry: '1/(s^2 + 2*zeta*s + 1)', gives: '1/(s^2 + 0.4s + 1)' }],
  },
  {
    id: 'equals-signs',
    title: 'Four signs that look alike',
    text: 'R = 4 defines; in a group R*I = 12 is an equation, with its number beside it; a == b asks, and is true or false; a ~~ b checks, and says to how many figures both agree. A line that asks among equations is hinted at, with the equation as the fix; so is a name that is defined anew after it was determined.',
    examples: [example('2*3 == 6', 'true'), example('2/3 ~~ 0.67', 'agrees to 2 significant figures')],
  },
  {
    id: 'edge',
    title: 'At the edge',
    text: '7/0 is ∞; 0/0 and ∞ − ∞ are undefined, in words. A result beyond the range of numbers is an error, never ∞. A part that is only rounding noise is shown as 0.',
    examples: [example('7/0 > 10^300', 'true')],
  },
]
