/** @jest-environment jsdom */
import { catchTyping, typedAhead } from './typedAhead'

const press = (key: string, more: KeyboardEventInit = {}): boolean =>
  document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }))
const type = (text: string): void => {
  for (const key of text) press(key)
}

afterEach(() => void typedAhead())

test('what is typed before a field is there waits for it, in order, and reaches nothing else', () => {
  const heard: string[] = []
  const listen = (event: KeyboardEvent): void => void heard.push(event.key)
  document.addEventListener('keydown', listen)
  catchTyping()
  type('Two')
  press('Backspace')
  press('Enter')
  type('3∠')
  expect(heard).toEqual([])
  expect(typedAhead()).toBe('Tw\n3∠')
  type('x')
  expect(heard).toEqual(['x'])
  expect(typedAhead()).toBe('')
  document.removeEventListener('keydown', listen)
})

test('commands go where they went; signs made with AltGr are signs', () => {
  catchTyping()
  expect(press('z', { ctrlKey: true })).toBe(true)
  expect(press('F8')).toBe(true)
  expect(press('Shift')).toBe(true)
  expect(press('{', { ctrlKey: true, altKey: true, modifierAltGraph: true })).toBe(false)
  expect(typedAhead()).toBe('{')
})

test('Escape, a press of the pointer, or waiting for long lets go of it', () => {
  jest.useFakeTimers()
  const endings: (() => void)[] = [
    () => press('Escape'),
    () => window.dispatchEvent(new Event('pointerdown')),
    () => jest.advanceTimersByTime(10_000),
  ]
  for (const ending of endings) {
    catchTyping()
    type('a')
    ending()
    expect(press('b')).toBe(true)
    expect(typedAhead()).toBe('')
  }
  jest.useRealTimers()
})
