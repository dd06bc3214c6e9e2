/** @jest-environment jsdom */
import { inkOf } from '#core/scene/scene'
import type { PlaneMark } from '#core/scene/scene'
import { Mounted } from '../mounted.testing'
import MarkStops from './MarkStops.vue'
import MeasureStrip from './MeasureStrip.vue'
import ValueCard from './ValueCard.vue'

let page: Mounted
afterEach(() => page.close())

const size = { width: 400, height: 300 }
const view = { re: 0, im: 0, perPixel: 0.1 }
const mark = (label: string, re: number, im: number, more: Partial<PlaneMark> = {}): PlaneMark => ({
  id: label, line: label, label, role: 'arrow', ink: inkOf(0), labelled: true, draggable: true, re, im,
  rectangular: `${re} + ${im}j`, polar: `${label} polar`, ...more,
}) // prettier-ignore

describe('values of a plane by keyboard', () => {
  const marks = [mark('V', 3, 4), mark('I', -2, 0, { draggable: false }), mark('V', 1, 1, { id: 't', term: true }), mark('Z', 900, 0)] // prettier-ignore
  beforeEach(() => {
    page = new Mounted(MarkStops, { marks, view, size }, ['focused', 'pressed', 'left'])
  })
  const label = (): string => page.one('button').getAttribute('aria-label') ?? ''

  test('are one stop of the Tab key that says both forms, how many there are, and what can be done', () => {
    expect(page.all('button')).toHaveLength(1)
    expect(label()).toBe('V: 3 + 4j, V polar. Value 1 of 3. Arrow keys move it.')
    expect(page.one('button').style.left).toBe('230px')
    expect(page.one('button').style.top).toBe('110px')
  })

  test('Page Down and Page Up go through them, Home and End to the ends, no farther', async () => {
    await page.press('button', 'PageDown')
    expect(label()).toMatch(/^I: .*Value 2 of 3\. Computed\.$/)
    expect(page.told).toContainEqual(['focused', 'I'])
    await page.press('button', 'End')
    expect(label()).toMatch(/^Z: /)
    // Out of the picture: the stop stands at its edge.
    expect(page.one('button').style.left).toBe('387px')
    await page.press('button', 'PageDown')
    expect(label()).toMatch(/^Z: /)
    await page.press('button', 'Home')
    await page.press('button', 'PageUp')
    expect(label()).toMatch(/^V: /)
    // A move of the value before has ended each time.
    expect(page.told.filter(([name]) => name === 'left')).toHaveLength(5)
  })

  test('other keys are for the value', async () => {
    const event = await page.press('button', 'ArrowLeft')
    expect(page.told.map(([name]) => name)).toEqual(['pressed'])
    expect(event.defaultPrevented).toBe(false)
  })

  test('when there are fewer, the last of them has the stop; when there is none, nobody', async () => {
    await page.press('button', 'End')
    await page.set({ marks: marks.slice(0, 1) })
    expect(label()).toMatch(/^V: .*1 of 1/)
    await page.set({ marks: [] })
    expect(page.all('button')).toHaveLength(0)
  })
})

const PLAIN = { key: '', text: '', scale: 1, shown: '', factor: 1 }
const VOLTS = { key: 'v', text: 'V', scale: 1, shown: 'V', factor: 1 }
const AMPERES = { key: 'a', text: 'A', scale: 10, shown: 'A', factor: 1 }

describe('two values that are measured', () => {
  const shown = (...marks: PlaneMark[]): void => {
    page = new Mounted(MeasureStrip, { marks, scales: [VOLTS, AMPERES, PLAIN] }, ['close', 'swap'])
  }

  test('first it is said what to do', () => {
    shown()
    expect(page.text).not.toBe('')
    expect(page.text).not.toContain('∠')
  })

  test('their difference, ratio and the angle between are read', () => {
    shown(mark('A', 3, 4), mark('B', 0, 5))
    expect(page.text).toContain('A')
    // B − A = −3 + 1j or the other way round; |·| = √10; 5/5 = 1; 90° − 53.13° = 36.87°.
    expect(page.text).toMatch(/3 [−+-] ?1?j/)
    expect(page.text).toMatch(/36\.8/)
  })

  test('of one unit with it, each counted in its own scale; of two units the angle alone', () => {
    shown({ ...mark('V', 30, 40), unit: 'v' }, { ...mark('U', 30, 0), unit: 'v' })
    expect(page.text).toContain('(0 − 40j) V')
    expect(page.text).toContain('40 V')
    shown({ ...mark('I', 30, 40), unit: 'a' }, { ...mark('J', 0, 50), unit: 'a' })
    // Ten plane units an ampere.
    expect(page.text).toContain('(−3 + 1j) A')
    shown({ ...mark('V', 30, 40), unit: 'v' }, { ...mark('I', 0, 50), unit: 'a' })
    expect(page.text).toMatch(/36\.8/)
    expect(page.text).not.toMatch(/distance|[0-9] [VA]/)
  })
})

test('the card beside a value says its name in its hue and both its forms', () => {
  const props = { name: 'V', hue: 2, rectangular: '3 + 4j', polar: '5 ∠ 53.13°', at: { left: '8px' } }
  page = new Mounted(ValueCard, props)
  expect(page.text).toBe('V3 + 4j5 ∠ 53.13°')
  expect(page.one('[role=status]').style.left).toBe('8px')
  expect(page.one('strong').style.color).toBe('var(--hue-3)')
})
