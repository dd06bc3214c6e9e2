import type { SentencesOf } from './sentencesOf'

/** Of names. */
export const names = {
  'unknown-name': (d) => `${d.name} is not known here.${d.near ? ` Did you mean ${orList(d.near)}?` : ''}`,
  'names-run-together': (d) => `${d.name} is not known. Did you mean the product ${d.parts}?`,
  'defined-below': (d) =>
    `${d.name} is defined further down, in line ${d.line}. Lines only see what stands above them.`,
  'self-reference': (d) => `${d.name} is not defined above this line, so it cannot be used to define itself.`,
  recursive: (d) => `${d.name} calls itself. A function can only use what stands above it.`,
  'reserved-word': (d) => `${d.name} is a word of the notation and cannot be a name.`,
  'constant-reserved': (d) => `${d.name} is a constant and cannot be given another value.`,
  'letter-reserved': (d) =>
    `${d.name} is the imaginary unit of this folio. Choose ${d.other} as the letter, or another name.`,
  'function-reserved': (d) => `${d.name} is a function and cannot be used as a name.`,
  'function-needs-bracket': (d) => `${d.name} is a function: it needs an argument in brackets.`,
  'not-a-function': (d) => `${d.name} is not a function. To multiply, write * between them.`,
  'no-line-above': () => 'No line above this one has a value that prev could take.',
  'no-enclosure': (d) =>
    d.known === ''
      ? `No file called “${d.name}” is kept with this folio. Open it with Exchange, or drop it here.`
      : `No file called “${d.name}” is kept with this folio. There are: ${d.known}.`,
  'enclosure-loading': (d) => `The numbers of “${d.name}” are on their way.`,
  'enclosure-lost': (d) => `The numbers of “${d.name}” are not there: open the file again.`,
  'waits-for': (d) => `This waits for line ${d.line}, which defines ${d.name} and is in error.`,
  'not-a-name': (d) =>
    d.name
      ? `${d.name} is not a name: a name begins with a letter and goes on with letters, digits and _.`
      : 'A name is missing.',
  'name-taken': (d) => `${d.name} is kept already, in line ${d.line}.`,
  'name-read-otherwise': (d) => `With ${d.name} as a name, line ${d.line} would be read differently.`,
  'name-caught': (d) => `In line ${d.line}, ${d.name} is a parameter or counter already and would hide the new name.`,
} satisfies SentencesOf

function orList(names: string): string {
  const parts = names.split(', ')
  const last = parts.pop() ?? ''
  return parts.length === 0 ? last : `${parts.join(', ')} or ${last}`
}
