import { describe, expect, test } from '@jest/globals'
import * as fc from 'fast-check'
import { CallQueue } from './calls'

/** A queue whose calls write down what they were, and answer when they are let. */
function recorded() {
  const queue = new CallQueue()
  const told: string[] = []
  const waiting: (() => void)[] = []
  const answer = (what: string) => (): Promise<void> => {
    told.push(what)
    return new Promise((done) => waiting.push(done))
  }
  const settleDown = async (): Promise<void> => {
    for (let k = 0; k < 200; k += 1) {
      waiting.shift()?.()
      await Promise.resolve()
    }
  }
  return {
    queue,
    told,
    settleDown,
    call: (what: string) => void queue.call(answer(what)),
    type: (source: string, id = 'a') => void queue.type({ id, source }, (t) => answer(`${t.id}:${t.source}`)()),
  }
}

describe('calls to the worker', () => {
  test('go one after another; the newest of texts that wait is the one that is reckoned', async () => {
    const { told, type, call, settleDown } = recorded()
    call('load')
    await Promise.resolve()
    type('1')
    type('12')
    type('123')
    expect(told).toEqual(['load'])
    await settleDown()
    expect(told).toEqual(['load', 'a:123'])
  })

  test('a text typed after a line was kept is reckoned after it, however slow the worker was until then', async () => {
    const { queue, told, type, call, settleDown } = recorded()
    call('load')
    type('c = 10')
    queue.dropTyped()
    call('settle')
    call('apply')
    type('a + b + c', 'b')
    await settleDown()
    expect(told).toEqual(['load', 'settle', 'apply', 'b:a + b + c'])
  })

  test('a call that fails does not hold up the next', async () => {
    const queue = new CallQueue()
    const told: string[] = []
    const failing = queue.call(() => Promise.reject(new Error('the worker went')))
    const after = queue.call(() => Promise.resolve(void told.push('next')))
    await expect(failing).rejects.toThrow('the worker went')
    await after
    expect(told).toEqual(['next'])
  })

  test('whatever the order of calls and keys: calls keep their order, and the last text typed is reckoned last of all', async () => {
    const step = fc.oneof(
      fc.record({ kind: fc.constant('type' as const) }),
      fc.record({ kind: fc.constant('call' as const) }),
      fc.record({ kind: fc.constant('wait' as const) }),
    )
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 30 }), async (steps) => {
        const { told, type, call, settleDown } = recorded()
        let made: string[] = []
        for (const [k, { kind }] of steps.entries()) {
          if (kind === 'wait') await settleDown()
          else if (kind === 'call') {
            call(`c${k}`)
            made.push(`c${k}`)
          } else {
            type(String(k))
            made.push(`a:${k}`)
          }
        }
        await settleDown()
        // What was told is what was made, save texts that a newer one followed at once.
        const whole = made.filter((what, k) => !what.startsWith('a:') || !(made[k + 1] ?? '').startsWith('a:'))
        const missing = whole.filter((what) => !told.includes(what))
        expect(missing).toEqual([])
        made = made.filter((what) => told.includes(what))
        expect(told).toEqual(made)
      }),
    )
  })
})
