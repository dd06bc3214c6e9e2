import { kindWords } from './kindWords'
import type { SentencesOf } from './sentencesOf'

/** Of groups of equations. */
export const equations = {
  'determine-form': () =>
    'determine stands alone, or says where to look: determine near I1 = 2 A, or determine from t = 0 to 5 ms.',
  'determine-without-sought': () =>
    'No equations stand above this line: a group begins with sought I1, I2 and ends with determine.',
  'nothing-sought': (d) =>
    `Nothing that is sought (${d.names}) stands in this equation. A definition has one name on the left of =.`,
  'not-sought': (d) => `${d.name} is not sought here: sought are ${d.names}.`,
  'no-equations': (d) => `No equation stands between sought ${d.names} and this line.`,
  'sought-unused': (d) => `${d.name} is sought (line ${d.line}), but it stands in no equation.`,
  'equations-wait': (d) => `This waits for ${d.lines}: an equation there is in error.`,
  'not-determined': (d) => `${d.name} is still sought: its value comes with determine, below the equations.`,
  'equation-false': () => 'What is sought drops out of this equation, and what is left is never true.',
  'equation-never': (d) => `The equation in line ${d.line} is never true.`,
  'equations-contradict': (d) => `The equations in ${d.lines} contradict one another: no values satisfy all of them.`,
  'equations-none': (d) => `No values satisfy all equations: with the others, the one in line ${d.line} is never true.`,
  'equation-units': (d) =>
    `The units in line ${d.line} do not go together with those of the other equations: there ${d.one} would be ${d.other}.`,
  'equation-kind': (d) =>
    `The equation in line ${d.line} has terms that cannot be solved for: numbers, angles, vectors and matrices can.`,
  'equation-unknowns': (d) =>
    `The equation in line ${d.line} has unknowns besides what is sought. They may stand in the coefficients of linear equations only.`,
  'equations-sweep-unknown': () => 'Sweeps and unknowns cannot both be coefficients of the same equations.',
  'equations-several-along': () =>
    'At a point of the sweep there are several solutions. Say which one with determine near …',
  'equation-value': (d) => `An equation is between numbers, angles, vectors or matrices; this is ${kindWords(d.kind)}.`,
  'equation-infinite': (d) => `In line ${d.line} a coefficient is not finite: such an equation says nothing.`,
  'equation-sides': (d) => `The sides of this equation are not alike: ${kindWords(d.left)} and ${kindWords(d.right)}.`,
  'equations-count': (d) =>
    `With unknowns in their coefficients, ${d.sought} sought names need ${d.sought} equations: here are ${d.equations}.`,
  'equations-few': (d) =>
    `There are too few equations: ${d.equations} for ${d.sought} sought ${d.sought === 1 ? 'name' : 'names'}.${d.free ? ` Free stays ${d.free}.` : ''}`,
  'near-number': (d) =>
    `A solution is looked for near a number or an angle; for ${d.name} ${kindWords(d.kind)} is given.`,
  'periodic-needs-range': (d) =>
    `These equations repeat themselves as ${d.name} grows, so that there are solutions without end. Say where to look: determine from ${d.name} = … to …`,
  'not-smooth': (d) =>
    `${d.term} in line ${d.line} has no derivative that could lead to a solution. Equations may have the usual operators and functions of numbers.`,
  'no-solution': () => 'No values satisfy these equations.',
  'no-solution-between': () => 'No solution was found between the values that are given.',
  'no-solution-found': () =>
    'No real solution was found. Say where to look: determine near …, with a complex value if complex ones are wanted.',
  'sought-redefined': (d) =>
    `${d.name} was found by determine in line ${d.line}; from here on it is what this line says. To compare the two, write ==.`,
  'equation-asks': (d) => `${d.text} asks whether both sides are equal; it is no equation. An equation has one =.`,
  'equation-always': () => 'What is sought drops out of this equation: it is always true and says nothing.',
} satisfies SentencesOf
