import { Gate } from './gate'
import type { Verdict } from './gate'

/** A clock that goes on only when somebody waits for it. */
class Clock {
  now = 1_000_000
  private sleepers: { readonly at: number; readonly wake: () => void }[] = []
  readonly rest = (time: number): Promise<void> =>
    new Promise((wake) => this.sleepers.push({ at: this.now + time, wake }))

  async advance(time: number): Promise<void> {
    this.now += time
    const due = this.sleepers.filter((s) => s.at <= this.now)
    this.sleepers = this.sleepers.filter((s) => s.at > this.now)
    for (const { wake } of due) wake()
    for (let k = 0; k < 20; k += 1) await Promise.resolve()
  }

  get waiting(): number {
    return this.sleepers.length
  }
}

let clock: Clock
let gate: Gate
beforeEach(() => {
  clock = new Clock()
  gate = new Gate('correct horse', () => clock.now, clock.rest)
})
const guess = async (address: string, count: number): Promise<Verdict[]> => {
  const verdicts: Verdict[] = []
  for (let k = 0; k < count; k += 1) verdicts.push(await gate.look(`guess ${k}`, address))
  return verdicts
}

test('the right one is let in, and only it', async () => {
  expect(await gate.look('correct horse', 'a')).toEqual({ status: 'right' })
  for (const wrong of ['', 'correct', 'correct horse ', 'Correct horse', 'correct horse\0'])
    expect((await gate.look(wrong, 'a')).status).toBe('wrong')
})

test('three hundred right ones at once from one address are all let in, and none waits', async () => {
  const all = await Promise.all(Array.from({ length: 300 }, () => gate.look('correct horse', 'a')))
  expect(all.every((one) => one.status === 'right')).toBe(true)
  expect(clock.waiting).toBe(0)
})

test('after some wrong ones the next are held, longer and longer, up to a bound', async () => {
  expect((await guess('a', 5)).map((v) => v.status === 'wrong' && v.seconds)).toEqual([0, 0, 0, 0, 1])
  const waits: number[] = []
  for (let k = 0; k < 8; k += 1) {
    const began = clock.now
    let verdict: Verdict | null = null
    void gate.look('guess', 'a').then((v) => (verdict = v))
    while (verdict === null) await clock.advance(500)
    waits.push((clock.now - began) / 1000)
    expect(verdict).toMatchObject({ status: 'wrong' })
  }
  expect(waits).toEqual([1, 2, 4, 8, 16, 20, 20, 20])
})

test('the right one is held with the others from there, and let in; from elsewhere it is not held at all', async () => {
  await guess('a', 5)
  let verdict: Verdict | null = null
  void gate.look('correct horse', 'a').then((v) => (verdict = v))
  await clock.advance(999)
  expect(verdict).toBeNull()
  expect(await gate.look('correct horse', 'b')).toEqual({ status: 'right' })
  await clock.advance(1)
  expect(verdict).toEqual({ status: 'right' })
})

test('who guesses with many at once gets no more looked at than one after the other, some at a time', async () => {
  await guess('a', 5)
  const all: Promise<Verdict>[] = Array.from({ length: 200 }, (_, k) => gate.look(`at once ${k}`, 'a'))
  await clock.advance(0)
  expect(clock.waiting).toBe(12)
  await clock.advance(1_000)
  const statuses = (await Promise.all(all)).map((v) => v.status)
  expect(statuses.filter((s) => s === 'wrong')).toHaveLength(12)
  expect(statuses.filter((s) => s === 'wait')).toHaveLength(188)
  // They have counted: the next one waits long.
  void gate.look('guess', 'a')
  await clock.advance(19_000)
  expect(clock.waiting).toBe(1)
})

test('in an hour no more than some thousand are looked at from one address, however many come', async () => {
  let looked = 0
  for (let second = 0; second < 3_600; second += 1) {
    for (let k = 0; k < 30; k += 1)
      void gate.look(`guess ${second} ${k}`, 'a').then((v) => (looked += v.status === 'wrong' ? 1 : 0))
    await clock.advance(1_000)
  }
  expect(looked).toBeLessThan(12 * 180 + 60)
})

test('after an hour without a wrong one an address begins anew', async () => {
  await guess('a', 5)
  await clock.advance(3_600_001)
  expect((await guess('a', 4)).every((v) => v.status === 'wrong' && v.seconds === 0)).toBe(true)
})

test('newer addresses count by their network: whoever has one has the others of it', async () => {
  for (let k = 0; k < 5; k += 1) await gate.look('guess', `2001:db8:1:2::${k + 1}`)
  void gate.look('guess', '2001:db8:1:2:ffff::9')
  await clock.advance(0)
  expect(clock.waiting).toBe(1)
  expect((await gate.look('guess', '2001:db8:1:3::1')).status).toBe('wrong')
  expect((await gate.look('guess', '::1')).status).toBe('wrong')
})
