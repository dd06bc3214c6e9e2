import * as fc from 'fast-check'
import { parseLine } from './parser'
import type { Node } from './tree'

/**
 * Precedence by properties: a tree that is written with the fewest brackets the notation asks for is read
 * as the tree that is written with all of them. The table is the one of the notation's own chapter.
 */
type Infix = 'or' | 'and' | '<' | '+' | '-' | '||' | '*' | '/' | 'mod' | '^'
type Tree =
  | string
  | { readonly sign: Infix; readonly left: Tree; readonly right: Tree }
  | { readonly sign: 'minus' | 'not'; readonly operand: Tree }

const LEVEL: Readonly<Record<Infix | 'minus' | 'not', number>> = {
  or: 1, and: 2, not: 3, '<': 4, '+': 5, '-': 5, '||': 6, '*': 7, '/': 7, mod: 7, minus: 8, '^': 9,
} // prettier-ignore

const levelOf = (tree: Tree): number => (typeof tree === 'string' ? 10 : LEVEL[tree.sign])
const bracketed = (text: string, needed: boolean): string => (needed ? `(${text})` : text)

function fewest(tree: Tree): string {
  if (typeof tree === 'string') return tree
  const level = LEVEL[tree.sign]
  if ('operand' in tree) {
    const operand = bracketed(fewest(tree.operand), levelOf(tree.operand) < level)
    return tree.sign === 'minus' ? `-${operand}` : `not ${operand}`
  }
  const power = tree.sign === '^'
  // Powers go to the right and may carry a sign there; all else goes from the left; comparisons form chains.
  const left = levelOf(tree.left) < level || (levelOf(tree.left) === level && (power || tree.sign === '<'))
  const signed = power && typeof tree.right === 'object' && tree.right.sign === 'minus'
  const right = !signed && (levelOf(tree.right) < level || (levelOf(tree.right) === level && !power))
  return `${bracketed(fewest(tree.left), left)} ${tree.sign} ${bracketed(fewest(tree.right), right)}`
}

function all(tree: Tree): string {
  if (typeof tree === 'string') return tree
  if ('operand' in tree) return tree.sign === 'minus' ? `(-${all(tree.operand)})` : `(not ${all(tree.operand)})`
  return `(${all(tree.left)} ${tree.sign} ${all(tree.right)})`
}

/** What a line was read as, without spans and the brackets that were written. */
function shape(node: Node): string {
  switch (node.type) {
    case 'group':
      return shape(node.inner)
    case 'name':
      return node.name
    case 'literal':
      return node.digits
    case 'sum':
    case 'product':
      return `(${shape(node.left)} ${node.sign} ${shape(node.right)})`
    case 'parallel':
      return `(${shape(node.left)} || ${shape(node.right)})`
    case 'power':
      return `(${shape(node.base)} ^ ${shape(node.exponent)})`
    case 'sign':
      return `(${node.sign}${shape(node.operand)})`
    case 'logic':
      return `(${node.sign} ${node.operands.map(shape).join(' ')})`
    case 'compare':
      return `(${shape(node.first)} ${node.rest.map((r) => `${r.sign} ${shape(r.node)}`).join(' ')})`
    default:
      return `?${node.type}`
  }
}

function read(source: string): string {
  const { statement, problem } = parseLine(source)
  expect(problem).toBeNull()
  return statement.type === 'expression' ? shape(statement.body) : statement.type
}

const { tree } = fc.letrec<{ tree: Tree; leaf: Tree; infix: Tree; prefix: Tree }>((tie) => ({
  tree: fc.oneof({ maxDepth: 6, depthIdentifier: 'tree' }, tie('leaf'), tie('infix'), tie('infix'), tie('prefix')),
  leaf: fc.constantFrom('a', 'b', 'R_1', '2', '0.5', '47'),
  infix: fc.record({
    sign: fc.constantFrom<Infix>('or', 'and', '<', '+', '-', '||', '*', '/', 'mod', '^'),
    left: tie('tree'),
    right: tie('tree'),
  }),
  prefix: fc.record({ sign: fc.constantFrom('minus', 'not'), operand: tie('tree') }),
}))

test('the fewest brackets say as much as all of them', () => {
  fc.assert(
    fc.property(tree, (t) => {
      expect(read(fewest(t))).toBe(read(all(t)))
    }),
    { numRuns: 2000 },
  )
})

test('one line leaves nothing behind for the next', () => {
  const pieces = ['(', ')', '[', '|', '||', '1', 'x', '5j', '∠', '30°', '^', '*', 'to', 'for', '=', ' ', '"', '#', "'"]
  const line = fc.array(fc.constantFrom(...pieces), { maxLength: 12 }).map((tokens) => tokens.join(''))
  fc.assert(
    fc.property(line, line, (before, after) => {
      const alone = parseLine(after)
      parseLine(before)
      expect(parseLine(after)).toEqual(alone)
    }),
    { numRuns: 1000 },
  )
})
