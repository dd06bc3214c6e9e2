import { spawn } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { createInterface } from 'node:readline'
import { pathToFileURL } from 'node:url'
import { bundled, nameOf, treeOf } from './atCommit.mjs'
import { ensurePackages, fail, ROOT, say } from './lib.mjs'
import { seedOfCommit } from './seed.mjs'

/**
 * `npm run differ -- COMMIT [lines] [--to FILE]`: so many lines (100 000) through an older commit and through what is
 * here: every value, unit, exactness, error with its place, fix, hint and step. What differs is listed by class, most
 * frequent first, with examples. Nothing that differs: nothing is listed, and the status is 0.
 */
ensurePackages()
const [commit, count = '100000'] = process.argv.slice(2).filter((arg, k, all) => !arg.startsWith('--') && all[k - 1] !== '--to') // prettier-ignore
const to = process.argv.includes('--to') ? process.argv[process.argv.indexOf('--to') + 1] : null
if (commit === undefined || !(Number(count) > 0)) fail('npm run differ -- COMMIT [lines] [--to FILE]')
const seed = Number(process.env.ORNATE_PHASOR_SEED ?? seedOfCommit())

/** A program that answers each line with a line, in order. */
class Teller {
  constructor(file) {
    this.child = spawn(process.execPath, [file], { stdio: ['pipe', 'pipe', 'inherit'] })
    this.waiting = []
    createInterface({ input: this.child.stdout }).on('line', (line) => this.waiting.shift()?.(line))
    this.child.on('exit', () => this.waiting.splice(0).forEach((done) => done('[{"thrown":"the program ended"}]')))
  }
  ask(text) {
    return new Promise((done) => {
      this.waiting.push(done)
      this.child.stdin.write(`${text}\n`)
    })
  }
}

/** What is only of the page, or new in the view and of no meaning for the one before. */
const ASIDE = new Set(['id', 'source', 'angle'])
/** Texts that are told by their own words: a class of them is the pair. */
const TELLING = new Set(['code', 'kind', 'exactness', 'shape'])

/** The places where two things differ, each with what stands there. */
function* differences(a, b, path = '', key = '') {
  if (a === b) return
  if (typeof a === 'object' && typeof b === 'object' && a && b && Array.isArray(a) === Array.isArray(b)) {
    if (Array.isArray(a) && a.length !== b.length) {
      yield [`${path} (how many)`, `${a.length} → ${b.length}`]
      return
    }
    const parts = new Set([...Object.keys(a), ...Object.keys(b)])
    // What the view of one commit does not have at all cannot be compared.
    if (path === '.view')
      for (const part of parts) if (!(part in a && part in b) && parts.delete(part)) onlyInOne.add(part)
    for (const part of parts)
      if (!ASIDE.has(part))
        yield* differences(a[part], b[part], Array.isArray(a) ? `${path}[]` : `${path}.${part}`, part)
    return
  }
  const brief = (value) => (typeof value === 'object' ? (value === null ? 'null' : 'something') : String(value))
  const telling = TELLING.has(key) || a === null || b === null || a === undefined || b === undefined
  yield [telling ? `${path}: ${brief(a).slice(0, 40)} → ${brief(b).slice(0, 40)}` : path, `${brief(a)} → ${brief(b)}`]
}

const lined = await bundled('scripts/differ/folios.ts', ROOT, 'differ-folios')
const { folios } = await import(pathToFileURL(lined).href)
const [before, now] = [
  new Teller(await bundled('scripts/differ/tell.ts', treeOf(commit), 'differ-before')),
  new Teller(await bundled('scripts/differ/tell.ts', ROOT, 'differ-now')),
]
say(`${count} lines through ${nameOf(commit)} and through what is here; seed ${seed} (ORNATE_PHASOR_SEED)`)

const classes = new Map()
const onlyInOne = new Set()
let [lines, differing, told] = [0, 0, Date.now()]

function compare({ lines: all, conventions }, old, fresh) {
  all.forEach((source, k) => {
    lines += 1
    const seen = new Set()
    // A line that ran out of time in one of them says nothing.
    if (old[k]?.view?.problem?.code === 'too-long' || fresh[k]?.view?.problem?.code === 'too-long') return
    for (const [name, what] of differences(old[k], fresh[k])) {
      if (seen.has(name)) continue
      seen.add(name)
      const found = classes.get(name) ?? { count: 0, examples: [] }
      found.count += 1
      if (found.examples.length < 3) found.examples.push({ source, what, above: all.slice(0, k), conventions })
      classes.set(name, found)
    }
    if (seen.size > 0) differing += 1
  })
}

const AT_ONCE = 16
const running = new Set()
for (const folio of folios(Number(count), seed)) {
  const text = JSON.stringify(folio)
  const one = Promise.all([before.ask(text), now.ask(text)]).then(([a, b]) => {
    running.delete(one)
    if (a === b) lines += folio.lines.length
    else compare(folio, JSON.parse(a), JSON.parse(b))
    if (Date.now() - told > 20_000) {
      told = Date.now()
      say(`  ${lines} lines, ${differing} differ`)
    }
  })
  running.add(one)
  if (running.size >= AT_ONCE) await Promise.race(running)
}
await Promise.all(running)
before.child.stdin.end()
now.child.stdin.end()

const sorted = [...classes].sort(([, a], [, b]) => b.count - a.count)
for (const part of ASIDE) onlyInOne.delete(part)
if (onlyInOne.size > 0) say(`\nNot compared, since only one of the two has it: ${[...onlyInOne].join(', ')}`)
if (to) writeFileSync(to, JSON.stringify(Object.fromEntries(sorted), null, 1))
say(`\n${lines} lines, ${differing} differ in ${sorted.length} classes`)
for (const [name, { count: times, examples }] of sorted.slice(0, 60)) {
  say(`\n${times} × ${name}`)
  for (const { source, what, conventions } of examples) say(`    ${source}    [${conventions.angle}]    ${what.slice(0, 160)}`) // prettier-ignore
}
process.exit(differing === 0 ? 0 : 1)
