import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { lineView } from '../views/lineView'
import { reckon } from '../testing'
import { FolioEvaluator } from './folio'

const lines = (...sources: string[]) => sources.map((source, k) => ({ id: `l${k}`, source }))

function opened(...sources: string[]) {
  const evaluator = new FolioEvaluator()
  let current = lines(...sources)
  evaluator.setSettings(DEFAULT_CONVENTIONS)
  evaluator.setLines(current)
  evaluator.update()
  const read = (k: number): string => {
    const view = lineView(evaluator.result(`l${k}`)!, DEFAULT_CONVENTIONS)
    return view.problem
      ? view.problem.code
      : view.readout.shape === 'twin'
        ? view.readout.rectangular
        : 'text' in view.readout
          ? view.readout.text
          : ''
  }
  const change = (k: number, source: string): string[] => {
    current = current.map((l, index) => (index === k ? { ...l, source } : l))
    evaluator.setLines(current)
    return evaluator.update()
  }
  return { evaluator, read, change }
}

describe('only what depends on a change is evaluated again', () => {
  test('the lines below that use it, through others too', () => {
    const { evaluator, read, change } = opened('V = 230', 'R = 10', 'I = V/R', 'P = V*I', '2+2')
    expect(read(3)).toBe('5290')
    expect(change(1, 'R = 23')).toEqual(['l1', 'l2', 'l3'])
    expect(evaluator.evaluatedLines).toBe(3)
    expect(read(3)).toBe('2300')
  })
  test('an edit that leaves the value as it was wakes no one', () => {
    const { change } = opened('x = 4', 'y = x^2', 'z = y + 1')
    expect(change(0, 'x = 2 + 2')).toEqual(['l0'])
    expect(change(0, 'x = -4')).toEqual(['l0', 'l1'])
  })
  test('the unit of the conventions wakes only the lines that read it', () => {
    const { evaluator } = opened('sin(30)', 'sin(30°)', '2+2')
    evaluator.setSettings({ angle: 'rad', letter: 'j' })
    expect(evaluator.update()).toEqual(['l0'])
  })
  test('a name that comes, goes and moves', () => {
    const { evaluator, read, change } = opened('x + 1', 'x = 2', 'x * 3')
    expect(read(0)).toBe('defined-below')
    expect(read(2)).toBe('6')
    change(1, 'y = 2')
    expect(read(0)).toBe('unknown-name')
    expect(read(2)).toBe('unknown-name')
    evaluator.setLines([{ id: 'l1', source: 'x = 2' }, { id: 'l0', source: 'x + 1' }, { id: 'l2', source: 'x * 3' }]) // prettier-ignore
    evaluator.update()
    expect(read(0)).toBe('3')
    expect(read(2)).toBe('6')
  })
  test('a kept n changes how 33n is read, and back', () => {
    const { read, change } = opened('# nothing yet', '33n')
    expect(read(1)).toBe('3.3e-8')
    change(0, 'n = 2')
    expect(read(1)).toBe('66')
    change(0, '')
    expect(read(1)).toBe('3.3e-8')
  })
  test('the letter of the conventions', () => {
    const { evaluator, read } = opened('i = 2', 'i*3')
    expect(read(1)).toBe('6')
    evaluator.setSettings({ angle: 'deg', letter: 'i' })
    evaluator.update()
    expect(read(0)).toBe('letter-reserved')
  })
})

describe('the ledger is read from top to bottom', () => {
  test('a line sees the nearest definition above it; redefining is pointed out', () => {
    const result = reckon(['x = 1', 'x + 1', 'x = 10', 'x + 1'])
    expect(result.map((r) => r.text)).toEqual(['1', '2', '10', '11'])
    expect(result[2]!.hints[0]).toMatchObject({ code: 'redefined' })
    expect(result[2]!.hints[0]!.message).toContain('line 1')
  })
  test('prev is the nearest line above that has a value', () => {
    const result = reckon(['3', '# a remark', '', 'f(x) = x', '3 ~~ 3.0', 'prev + 1', 'prev * 2'])
    expect(result[5]!.text).toBe('4')
    expect(result[6]!.text).toBe('8')
    expect(reckon(['prev'])[0]!.error!.code).toBe('no-line-above')
    expect(reckon(['2 +', 'prev'])[1]!.error!.code).toBe('waits-for')
  })
  test('functions see what stands above them, and keep it', () => {
    const result = reckon(['R = 3', 'Z(w) = R + j*w*2', 'R = 100', 'Z(2)', 'Z(w) = w', 'Z(5)'])
    expect(result[3]!.text).toBe('3 + 4j')
    expect(result[5]!.text).toBe('5')
  })
  test('parameters shadow', () => {
    expect(reckon(['x = 5', 'f(x) = x + 1', 'f(1)'])[2]!.text).toBe('2')
  })
  test('a function is called with as many arguments as it has', () => {
    expect(reckon(['f(x, y) = x*y', 'f(2)'])[1]!.error!.message).toContain('f(x, y)')
  })
  test('a failure inside a function names the function', () => {
    const { error } = reckon(['f(x) = 1∠x', 'f(2j)'])[1]!
    expect(error!.message).toMatch(/^In f: /)
  })
  test('only the chosen side of if is evaluated', () => {
    expect(reckon(['if(1 < 2, 5, 10^400)'])[0]!.text).toBe('5')
  })
})

describe('a line is stopped before it can hang the page', () => {
  test('functions that call functions that double the work', () => {
    const sources = [
      'f0(x) = x + 1',
      ...Array.from({ length: 40 }, (_, k) => `f${k + 1}(x) = f${k}(x) + f${k}(x)`),
      'f40(1)',
    ]
    const start = Date.now()
    expect(reckon(sources).at(-1)!.error!.code).toBe('too-long')
    expect(Date.now() - start).toBeLessThan(2000)
  })
  test('functions nested too deeply', () => {
    const sources = ['f0(x) = x', ...Array.from({ length: 300 }, (_, k) => `f${k + 1}(x) = f${k}(x)`), 'f300(1)']
    expect(reckon(sources).at(-1)!.error!.message).toContain('too deeply')
  })
})

describe('lines that take long', () => {
  /** About 0.2 s on any machine of today, by itself. */
  const heavy = (k: number): string => `h${k} = sum(sin(n)^2*cos(n) for n = 1 to 100000)`
  const lines = (...sources: string[]) => sources.map((source, k) => ({ id: String(k), source }))
  const postponing = (sources: string[], settings = {}): FolioEvaluator => {
    const evaluator = new FolioEvaluator()
    evaluator.setSettings({ angle: 'rad', letter: 'j', timeLimit: 20_000, firstTurn: 20, ...settings })
    evaluator.setLines(lines(...sources))
    evaluator.update()
    return evaluator
  }
  const codes = (evaluator: FolioEvaluator, count: number): (string | undefined)[] =>
    Array.from({ length: count }, (_, k) => evaluator.result(String(k))!.evaluated.problem?.code)

  test('wait until the others are done, then have their turn', () => {
    const evaluator = postponing([heavy(1), 'a = 2', heavy(2), 'a + 1', 'h1 + a'])
    expect(evaluator.postponed).toEqual(['0', '2'])
    expect(codes(evaluator, 5)).toEqual(['postponed', undefined, 'postponed', undefined, 'waits-for'])
    expect(evaluator.giveTurn('0')).toEqual(expect.arrayContaining(['0', '4']))
    expect(codes(evaluator, 5)).toEqual([undefined, undefined, 'postponed', undefined, undefined])
    evaluator.giveTurn('2')
    expect(evaluator.postponed).toEqual([])
    // What is done stays done.
    evaluator.update()
    expect(evaluator.evaluatedLines).toBe(0)
  })

  test('a line that is granted it has its whole time at once', () => {
    const evaluator = postponing(['a = 1'])
    evaluator.setLines(lines('a = 1', heavy(1)))
    evaluator.update(new Set(['1']))
    expect(codes(evaluator, 2)).toEqual([undefined, undefined])
  })

  test('a line that is edited or removed waits no longer', () => {
    const evaluator = postponing([heavy(1), heavy(2)])
    evaluator.setLines(lines('7'))
    evaluator.update()
    expect(evaluator.postponed).toEqual([])
  })

  test('many of them do not hold up the rest', () => {
    const began = Date.now()
    const evaluator = postponing([...Array.from({ length: 100 }, (_, k) => heavy(k)), 'a = 5'], { firstTurn: 80 })
    expect(evaluator.result('100')!.evaluated.problem).toBeNull()
    expect(evaluator.postponed).toHaveLength(100)
    // By themselves they take at least 100 × 0.1 s; first turns take 0.8 s, and then 8 ms each.
    expect(Date.now() - began).toBeLessThan(8_000)
  })

  test('which line is reckoned is told', () => {
    const told: string[] = []
    postponing(['1', '2', '3'], { onLine: (id: string) => told.push(id) })
    expect(told).toEqual(['1', '2'])
  })
})

describe('room for values', () => {
  const large = (k: number): string => `s${k} = 1 to 10000000`
  test('beyond what a folio may hold a line says so, and has its value once there is room', () => {
    const evaluator = new FolioEvaluator()
    const lines = (count: number) => Array.from({ length: count }, (_, k) => ({ id: String(k), source: large(k) }))
    evaluator.setSettings({ angle: 'rad', letter: 'j' })
    evaluator.setLines(lines(7))
    evaluator.update()
    expect(evaluator.result('5')!.evaluated.problem).toBeNull()
    expect(evaluator.result('6')!.evaluated.problem).toMatchObject({ code: 'no-room', data: { most: 60, has: 10 } })
    evaluator.setLines(lines(7).slice(1))
    expect(evaluator.update()).toEqual(['6'])
    expect(evaluator.result('6')!.evaluated.value).toMatchObject({ kind: 'sweep', count: 10_000_000 })
  })
})

describe('a name that cannot be kept stays what it is', () => {
  const after = (refused: string, line: string) => {
    const evaluator = new FolioEvaluator()
    const lines = (...sources: string[]) => sources.map((source, k) => ({ id: String(k), source }))
    const outcome = (...sources: string[]) => {
      evaluator.setLines(lines(...sources))
      evaluator.update()
      const { value, problem } = evaluator.result(String(sources.length - 1))!.evaluated
      return problem?.code ?? (value?.kind === 'number' ? [value.re, value.im] : value?.kind)
    }
    return { without: outcome('', line), below: outcome(refused, line), above: outcome(line, refused, line) }
  }
  test.each([
    ['sin = 4', 'sin(30)'],
    ['sin = 4', 'sin^2(30)'],
    ['sin(x) = x', 'sin(30)'],
    ['asin = 4', 'asin(0.5)'],
    ['dB = 2', 'dB(10)'],
    ['pi = 3', '2pi'],
    ['e = 3', '2e'],
    ['inf = 3', '1/inf'],
    ['j = 3', '4j + 3 + j4'],
    ['mod = 2', '7 mod 3'],
    ['for = 2', 'sum(k for k = 1 to 4)'],
  ])('after %s: %s', (refused, line) => {
    const { without, below, above } = after(refused, line)
    expect(below).toEqual(without)
    expect(above).toEqual(without)
  })
})
