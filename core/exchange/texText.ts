import { escapeText } from '../notation/latex'
import { greek } from '../notation/words'

/** LaTeX that compiles by itself, from readings, values and what students write. */

/** Signs with a name in LaTeX's mathematics. */
const SIGNS: ReadonlyMap<string, string> = new Map([ ['\u2126', '\\Omega '], ['°', '{}^{\\circ}'], ['−', '-'],
  ['∠', '\\angle '], ['≈', '\\approx '], ['×', '\\times '], ['·', '\\cdot '], ['÷', '\\div '], ['√', '\\surd '],
  ['π', '\\pi '], ['∞', '\\infty '], ['²', '{}^{2}'], ['³', '{}^{3}'], ['¹', '{}^{1}'], ['⁻', '{}^{-}'],
  ['≠', '\\neq '], ['≤', '\\leq '], ['≥', '\\geq '], ['∥', '\\parallel '], ['→', '\\rightarrow '],
  ['±', '\\pm '], ['′', "'"], ['″', "''"], ['½', '\\tfrac12 '], ['¼', '\\tfrac14 '], ['¾', '\\tfrac34 '], ['ε', '\\varepsilon '], ['ς', '\\varsigma '],
  ['φ', '\\varphi '], ['ϕ', '\\phi '], ['Π', '\\Pi '], ['ο', 'o'], ['↑', '\\uparrow '], ['↓', '\\downarrow '], ['←', '\\leftarrow '],
]) // prettier-ignore

const DIGITS = '₀₁₂₃₄₅₆₇₈₉'
const POWERS = '⁰¹²³⁴⁵⁶⁷⁸⁹'

/** Letters and marks of text. */
const LETTERS: ReadonlyMap<string, string> = new Map([
  ['ß', '\\ss{}'], ['æ', '\\ae{}'], ['Æ', '\\AE{}'], ['œ', '\\oe{}'], ['Œ', '\\OE{}'], ['ø', '\\o{}'], ['Ø', '\\O{}'],
  ['ł', '\\l{}'], ['Ł', '\\L{}'], ['ı', '\\i{}'], ['–', '--'], ['—', '---'], ['‘', '`'], ['’', "'"], ['‚', ','],
  ['“', '``'], ['”', "''"], ['„', ',,'], ['…', '\\dots{}'], ['\u00a0', '~'], ['\u202f', '\\,'], ['\u2009', '\\,'],
  ['§', '\\S{}'], ['¶', '\\P{}'], ['©', '\\copyright{}'], ['€', 'EUR'], ['£', '\\pounds{}'], ['•', '\\textbullet{}'],
  ['†', '\\dag{}'], ['‡', '\\ddag{}'], ['¡', "!`"], ['¿', "?`"], ['\u00ad', '\\-'], ['<', '$<$'], ['>', '$>$'],
  ['|', '$|$'], ['"', "''"],
]) // prettier-ignore

/** Accents that stand behind their letter in Unicode, and before it in LaTeX. */
const ACCENTS: ReadonlyMap<string, string> = new Map([
  ['\u0300', '`'], ['\u0301', "'"], ['\u0302', '^'], ['\u0303', '~'], ['\u0304', '='], ['\u0306', 'u'],
  ['\u0307', '.'], ['\u0308', '"'], ['\u030a', 'r'], ['\u030b', 'H'], ['\u030c', 'v'], ['\u0327', 'c'],
  ['\u0328', 'k'], ['\u0331', 'b'], ['\u0323', 'd'],
]) // prettier-ignore

/** Text as LaTeX sets it; what has no sign in its fonts stands by its number. */
export function texText(text: string): string {
  let written = ''
  for (const whole of text.normalize('NFC')) {
    const escaped = escapeText(whole)
    const known = escaped === whole ? (LETTERS.get(whole) ?? inMath(whole)) : escaped
    if (known !== null) {
      written += known
      continue
    }
    if (isPlain(whole)) {
      written += whole
      continue
    }
    const [base = '', accent = '', ...rest] = [...whole.normalize('NFD')]
    const sign = ACCENTS.get(accent)
    const letter = base === 'i' ? '\\i' : base === 'j' ? '\\j' : base
    // The ogonek is in no font that is always there.
    if (sign && sign !== 'k' && rest.length === 0 && isPlain(base)) written += `\\${sign}{${letter}}`
    else written += ACCENTS.has(whole) ? '' : isPlain(base) && base !== whole ? base : byNumber(whole)
  }
  return written
}

const isPlain = (letter: string): boolean => /^[\x20-\x7e\n]$/.test(letter)

const byNumber = (letter: string): string =>
  `(U+${(letter.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, '0')})`

function inMath(letter: string): string | null {
  const sign = signOf(letter)
  return sign === null ? null : `$${sign.trim()}$`
}

function signOf(letter: string): string | null {
  if (DIGITS.includes(letter)) return `{}_{${DIGITS.indexOf(letter)}}`
  if (POWERS.includes(letter)) return `{}^{${POWERS.indexOf(letter)}}`
  const sign = SIGNS.get(letter)
  if (sign !== undefined) return sign
  const name = greek(letter)
  return name === null ? null : `\\${name} `
}

/** Mathematics without a character that LaTeX's fonts have not; inside `\text` text is text. */
export function texMath(latex: string): string {
  let written = ''
  for (let k = 0; k < latex.length;) {
    const text = /^\\text\{((?:[^{}\\]|\\[{}#$%&_]|\\text(?:backslash|asciitilde|asciicircum)\{\})*)\}/.exec(
      latex.slice(k),
    )
    if (text) {
      written += `\\text{${textInMath(text[1] ?? '')}}`
      k += text[0].length
      continue
    }
    const letter = String.fromCodePoint(latex.codePointAt(k) ?? 0)
    written += isPlain(letter) ? letter : (signOf(letter) ?? `\\text{${texText(letter)}}`)
    k += letter.length
  }
  return written
}

/** Text that is escaped already, but for letters beyond ASCII. */
function textInMath(text: string): string {
  return [...text].map((letter) => (isPlain(letter) ? letter : texText(letter))).join('')
}

/** Commands that may stand in the mathematics of a note: they draw, and do nothing else. */
const COMMANDS = new Set(
  (
    'frac dfrac tfrac sqrt cdot times div pm mp angle circ infty pi alpha beta gamma delta epsilon varepsilon zeta eta theta ' +
    'iota kappa lambda mu nu xi rho sigma tau upsilon phi varphi chi psi omega Gamma Delta Theta Lambda Xi Pi Sigma Upsilon ' +
    'Phi Psi Omega le leq ge geq ne neq approx sim equiv propto parallel perp rightarrow to Rightarrow leftarrow mapsto ' +
    'partial nabla sum prod int oint lim sin cos tan cot sec csc arcsin arccos arctan sinh cosh tanh exp ln log det max min ' +
    'Re Im mathrm mathit mathbf mathsf mathcal text operatorname overline underline hat vec dot ddot bar tilde left right ' +
    'lVert rVert lvert rvert Vert vert lbrace rbrace langle rangle quad qquad cdots ldots dots vdots ddots displaystyle ' +
    'thinspace bmod pmod star ast dagger in notin subset cup cap forall exists neg land lor prime ell hbar nolimits limits ' +
    'mathbin Bigl Bigr bigl bigr big Big square textbackslash textasciitilde textasciicircum'
  ).split(' '),
)

/** True of LaTeX that cannot fail: known commands, brackets in pairs, nothing that leaves the formula. */
export function isSafeMath(latex: string): boolean {
  if (/[%#&~$]|\^\^/.test(latex.replace(/\\[%#&$]/g, ''))) return false
  if (/\\(?:\\|[^a-zA-Z,;:! {}|%#&$_])/.test(latex)) return false
  const commands = [...latex.matchAll(/\\([a-zA-Z]+)/g)].map((found) => found[1] ?? '')
  if (!commands.every((c) => COMMANDS.has(c))) return false
  return isBalanced(latex) && scriptsFit(latex) && argumentsFit(latex)
}

function isBalanced(latex: string): boolean {
  let depth = 0
  for (const [sign] of latex.matchAll(/\\.|[{}]/g)) {
    if (sign === '{') depth += 1
    else if (sign === '}') depth -= 1
    if (depth < 0) return false
  }
  const count = (word: string): number => latex.split(new RegExp(`\\\\${word}(?![a-zA-Z])`)).length
  return depth === 0 && count('left') === count('right')
}

/** A script has something to stand at, and does not come twice. */
function scriptsFit(latex: string): boolean {
  return !/[_^]\s*(?:[_^}&]|$|\\(?:left|right|frac|sqrt|text|math\w+|limits|nolimits)\b)/.test(latex) && !/(?:\^[^_^\s{}\\]|\^\{[^{}]*\})\s*(?:\^|')|(?:_[^_^\s{}\\]|_\{[^{}]*\})\s*_|'\s*\^/.test(latex) // prettier-ignore
}

/** Commands that take arguments have them in braces; `\left` and `\right` stand before a bracket. */
function argumentsFit(latex: string): boolean {
  const two = /\\(?:[dt]?frac)(?![a-zA-Z])(?!\s*\{)/
  const one =
    /\\(?:sqrt|mathrm|mathit|mathbf|mathsf|mathcal|text|operatorname|overline|underline|hat|vec|dot|ddot|bar|tilde|pmod|mathbin)(?![a-zA-Z])(?!\s*[{[])/
  const brackets = /\\(?:left|right|[Bb]ig[lr]?)(?![a-zA-Z])(?!\s*(?:[()[\]|./]|\\[{}|]|\\(?:lVert|rVert|lvert|rvert|lbrace|rbrace|langle|rangle|Vert|vert)(?![a-zA-Z])))/ // prettier-ignore
  if (two.test(latex) || one.test(latex) || brackets.test(latex)) return false
  // The second argument of a fraction follows its first.
  for (const found of latex.matchAll(/\\[dt]?frac\s*\{/g)) {
    let depth = 0
    let k = found.index + found[0].length - 1
    for (; k < latex.length; k += 1) {
      if (latex[k] === '\\') k += 1
      else if (latex[k] === '{') depth += 1
      else if (latex[k] === '}' && (depth -= 1) === 0) break
    }
    if (!/^\s*\{/.test(latex.slice(k + 1))) return false
  }
  return !/\\(?:limits|nolimits)/.test(latex) || /\\(?:sum|prod|int|oint|lim)\s*\\(?:no)?limits/.test(latex)
}
