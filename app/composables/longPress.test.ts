/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals'
import { useLongPress } from './longPress'

beforeEach(() => void jest.useFakeTimers())
afterEach(() => void jest.useRealTimers())

function rowWith(selecting: boolean) {
  const told: string[] = []
  const press = useLongPress(
    () => told.push('pressed'),
    () => selecting,
    () => told.push('tapped'),
  )
  const event = (type: string, x = 0, pointerType = 'touch') =>
    Object.assign(new MouseEvent(type, { clientX: x, clientY: 0, cancelable: true }), { pointerType }) as PointerEvent
  const click = (): boolean => {
    const happened = event('click')
    press.click(happened)
    return happened.defaultPrevented
  }
  return { told, press, event, click }
}

test('a finger that rests is told once, and the tap that follows does nothing', () => {
  const { told, press, event, click } = rowWith(false)
  press.down(event('pointerdown'))
  jest.advanceTimersByTime(600)
  press.end()
  expect(told).toEqual(['pressed'])
  expect(click()).toBe(true)
  // The next tap is a tap again.
  press.down(event('pointerdown'))
  press.end()
  expect(click()).toBe(false)
  expect(told).toEqual(['pressed'])
})

test('a finger that moves on, or is lifted, scrolls or taps', () => {
  const { told, press, event, click } = rowWith(false)
  press.down(event('pointerdown'))
  press.move(event('pointermove', 30))
  jest.advanceTimersByTime(600)
  press.down(event('pointerdown'))
  press.move(event('pointermove', 4))
  press.end()
  jest.advanceTimersByTime(600)
  expect(told).toEqual([])
  expect(click()).toBe(false)
})

test('while lines are selected a tap selects, of a finger only', () => {
  const { told, press, event, click } = rowWith(true)
  press.down(event('pointerdown'))
  press.end()
  expect(click()).toBe(true)
  press.down(event('pointerdown', 0, 'mouse'))
  jest.advanceTimersByTime(600)
  expect(click()).toBe(false)
  expect(told).toEqual(['tapped'])
})
