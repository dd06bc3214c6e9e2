import type { Apply } from '../notation/tree'
import type { Context, Evaluate } from '../operators/context'
import { atEveryPoint } from '../operators/lift'
import { binary, Plainly } from '../operators/rules'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import type { SweepValue, Value } from '../values/types'
import { measureOf } from '../quantities/shape'
import type { Measures } from '../quantities/shape'
import { alike } from '../quantities/sums'
import { unknownsOf } from '../quantities/through'
import { bare, isQuantity, quantity } from '../values/quantity'
import { define, signature } from '../signatures/definition'
import * as take from '../signatures/take'
import type { FunctionDefinition } from '../signatures/definition'

/** Words of which not all is evaluated, or not as it stands elsewhere. */

/** if(condition, a, b): only the chosen side is evaluated. */
function choose(node: Apply, context: Context, evaluate: Evaluate): Value | Failure {
  const [condition, yes, no] = node.args
  if (!condition || !yes || !no || node.args.length !== 3)
    return failure('argument-count', { signature: signature(choice), given: node.args.length })
  const value = evaluate(condition, context)
  if (value.kind === 'failure') return value
  if (value.kind === 'sweep') return chooseAtPoints(value, node, context, evaluate)
  if (value.kind !== 'truth') return failureAt(condition, failure('truth-needed', { kind: value.kind }))
  return evaluate(value.truth ? yes : no, context)
}

/** Over a sweep a side is evaluated where it is chosen at some point. */
function chooseAtPoints(value: SweepValue, { args }: Apply, context: Context, evaluate: Evaluate): Value | Failure {
  const [condition, yes, no] = args
  if (!condition || !yes || !no) throw new Error('three arguments')
  const truths = (value.items ?? []).flatMap((item) => (item.kind === 'truth' ? [item.truth] : []))
  if (truths.length < value.count) return failureAt(condition, failure('truth-needed', { kind: 'sweep' }))
  const a = truths.includes(true) ? evaluate(yes, context) : value
  if (a.kind === 'failure') return a
  const b = truths.includes(false) ? evaluate(no, context) : value
  if (b.kind === 'failure') return b
  const pick = (x: Value, y: Value): Value | Failure =>
    atEveryPoint([value, x, y], condition, context, ([is, p, q]) => (is.kind === 'truth' && is.truth ? p : q))
  if (!isQuantity(a) && !isQuantity(b)) return pick(a, b)
  // A side that is chosen nowhere stands for itself.
  const measures = a === value ? measuresIn(b) : b === value ? measuresIn(a) : alike(a, b, 'put together')
  if ('code' in measures) return measures
  const found = pick(bare(a), bare(b))
  return found.kind === 'failure' ? found : quantity(bare(found), measures, { unknowns: unknownsOf(a, b) })
}

const measuresIn = (value: Value): Measures => (value.kind === 'quantity' ? value.measure : measureOf(value))

function entryByEntry({ args }: Apply, context: Context, evaluate: Evaluate): Value | Failure {
  const [only] = args
  if (!only || args.length !== 1) return failure('argument-count', { signature: signature(each), given: args.length })
  return evaluate(only, context.entryByEntry())
}

const choice = define({
  name: 'if',
  opaque: true,
  group: 'choice',
  parameters: [take.truth('condition'), take.term('a'), take.term('b')],
  summary: 'a where the condition holds, else b; only the chosen side is reckoned.',
  examples: [
    { entry: 'if(2 > 1, 10, 20)', gives: '10' },
    { entry: 'if(x == 0, 1, sin(x)/x)', gives: '1', before: ['x = 0 rad'] },
    { entry: 'if(w > 2, 1, 0)', gives: '4 points, 0 … 1', before: ['w = 1 to 4'] },
  ],
  lazy: choose,
  apply: ([condition, a, b]) => (condition.truth ? a : b),
})

const each = define({
  name: 'each',
  opaque: true,
  group: 'vectors',
  parameters: [take.term('…')],
  summary: 'Entry by entry: the operators and functions written inside it work on the entries.',
  examples: [
    { entry: 'each([1, 2, 3]^2)', gives: '[1, 4, 9]' },
    { entry: 'each(1/[2, 4])', gives: '[0.5, 0.25]' },
    { entry: 'each([[1, 2], [3, 4]]*[[1, 2], [3, 4]])', gives: '[[1, 4], [9, 16]]' },
  ],
  lazy: entryByEntry,
  apply: ([only]) => only,
})

const rest = define({
  name: 'mod',
  operator: true,
  infix: true,
  group: 'numbers',
  parameters: [take.realOrAngle('a'), take.realOrAngle('b')],
  summary: 'The rest of the floored division of a by b: of the sign of b.',
  examples: [
    { entry: '7 mod 3', gives: '1' },
    { entry: '-7 mod 3', gives: '2' },
    { entry: '400° mod 360°', gives: '40°' },
    { entry: '(10^20 + 1) mod 7', gives: '3' },
  ],
  apply: (args, context) => binary('mod', args[0], args[1], new Plainly(context)),
})

export const choiceFunctions: readonly FunctionDefinition[] = [choice, each, rest]
