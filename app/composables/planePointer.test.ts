import * as fc from 'fast-check'
import { ref } from 'vue'
import { findLiteral } from '#core/notation/rewrite'
import { parseLine } from '#core/notation/parser'
import { reckon } from '#core/testing'
import type { DragWay } from '#core/scene/drag'
import type { PlaneMark } from '#core/scene/scene'
import { toPixel } from '#core/scene/view'
import type { Pixel, PlaneView } from '#core/scene/view'
import { usePlanePointer } from './planePointer'

/** A plane of 400 × 400 pixels, ten to the unit, with the origin in the middle. */
const size = { width: 400, height: 400 }
const view: PlaneView = { re: 0, im: 0, perPixel: 0.1 }

function markOf(line: string, re: number, im: number, draggable = true): PlaneMark {
  return {
    id: line, line, label: line, role: 'arrow', ink: { hue: 0, dash: [], width: 2 }, labelled: true,
    draggable, re, im, rectangular: '', polar: '',
  } // prettier-ignore
}

interface Options {
  readonly sources?: Readonly<Record<string, string>>
  readonly marks: readonly PlaneMark[]
  readonly way?: DragWay
}

/** The pointer over marks; what it did is told in order. */
function pointer({ sources = {}, marks, way = 'free' }: Options) {
  const told: string[] = []
  const shown = ref<PlaneView>(view)
  const literalOf = (source: string) => {
    const parsed = parseLine(source)
    const bound = reckon([source])[0]?.view.literal
    return bound ?? findLiteral(source, parsed.statement, null, 'deg')
  }
  const plane = usePlanePointer({
    canvas: ref(null),
    view: shown,
    size: ref(size),
    marks: ref(marks),
    way: () => way,
    step: () => 1,
    pan: (dx, dy) => told.push(`pan ${dx} ${dy}`),
    zoom: (factor, at) => told.push(`zoom ${factor.toFixed(2)} at ${at.x} ${at.y}`),
    slide: () => null,
    grasp: (line) => {
      const source = sources[line]
      const literal = source === undefined ? null : literalOf(source)
      return source !== undefined && literal ? { source, literal } : null
    },
    dragged: (line, source) => told.push(`drag ${line}: ${source}`),
    dropped: (line, source) => told.push(`drop ${line}: ${source}`),
    takenBack: () => told.push('back'),
    clicked: (mark, touch) => told.push(`click ${mark.id}${touch ? ' by touch' : ''}`),
    refused: (mark) => told.push(`refused ${mark.id}`),
  })
  return { plane, told }
}

const pixelOf = (re: number, im: number): Pixel => toPixel(view, size, { re, im })

function event(at: Pixel, more: Partial<PointerEvent> = {}): PointerEvent {
  return {
    clientX: at.x, clientY: at.y, button: 0, pointerId: 1, pointerType: 'mouse',
    shiftKey: false, altKey: false, ctrlKey: false, metaKey: false, ...more,
  } as PointerEvent // prettier-ignore
}
const key = (name: string, more: Partial<KeyboardEvent> = {}): KeyboardEvent =>
  ({ key: name, shiftKey: false, altKey: false, ctrlKey: false, metaKey: false, ...more }) as KeyboardEvent

beforeEach(() => jest.useFakeTimers())
afterEach(() => jest.useRealTimers())

const V = { sources: { V: 'V = 3 + 4j' }, marks: [markOf('V', 3, 4)] }

test('a value is grasped at its tip, follows the pointer, and is kept once where it is let go', () => {
  const { plane, told } = pointer(V)
  plane.down(event(pixelOf(3, 4)))
  plane.move(event(pixelOf(5, 4)))
  plane.move(event(pixelOf(5, -2)))
  expect(plane.drag.value?.mark?.line).toBe('V')
  plane.up(event(pixelOf(5, -2)))
  expect(told).toEqual(['drag V: V = 5 + 4j', 'drag V: V = 5 - 2j', 'drop V: V = 5 - 2j'])
  expect(plane.drag.value).toBeNull()
})

test('where it was grasped beside its tip, the tip keeps that distance', () => {
  const { plane, told } = pointer(V)
  const { x, y } = pixelOf(3, 4)
  plane.down(event({ x: x + 5, y: y - 5 }))
  plane.move(event({ x: x + 25, y: y - 5 }))
  plane.up(event({ x: x + 25, y: y - 5 }))
  expect(told.at(-1)).toBe('drop V: V = 5 + 4j')
})

test('a press that hardly moves is a click, and a press beside everything moves the picture', () => {
  const { plane, told } = pointer(V)
  plane.down(event(pixelOf(3, 4)))
  plane.move(event({ x: pixelOf(3, 4).x + 2, y: pixelOf(3, 4).y }))
  plane.up(event(pixelOf(3, 4)))
  plane.down(event(pixelOf(-10, -10)))
  plane.move(event(pixelOf(-8, -10)))
  plane.move(event(pixelOf(-8, -12)))
  plane.up(event(pixelOf(-8, -12)))
  expect(told).toEqual(['click V', 'pan 20 0', 'pan 0 20'])
})

test('keys hold a value to its ray, to its ring, or to steps', () => {
  const moved = (more: Partial<PointerEvent>, re: number, im: number): string => {
    const { plane, told } = pointer(V)
    plane.down(event(pixelOf(3, 4)))
    plane.move(event(pixelOf(re, im), more))
    plane.up(event(pixelOf(re, im), more))
    return told.at(-1) ?? ''
  }
  expect(moved({ shiftKey: true }, 6, 8.4)).toMatch(/V = 6\.\d* \+ 8\.\d*j/)
  expect(moved({ altKey: true }, 10, 0)).toBe('drop V: V = 5 + 0j')
  expect(moved({ ctrlKey: true }, 4.7, 1.2)).toBe('drop V: V = 5 + 1j')
})

test('along a ray the direction stays, and along a ring the magnitude, wherever the pointer is', () => {
  const place = fc.record({ re: fc.integer({ min: -18, max: 18 }), im: fc.integer({ min: -18, max: 18 }) })
  fc.assert(
    fc.property(place, fc.constantFrom<DragWay>('ray', 'ring'), ({ re, im }, way) => {
      fc.pre(Math.hypot(re - 3, im - 4) > 1 && Math.hypot(re, im) > 1)
      const { plane, told } = pointer({ ...V, way })
      plane.down(event(pixelOf(3, 4)))
      plane.move(event(pixelOf(re, im)))
      const value = reckon([(told.at(-1) ?? '').replace('drag V: ', '')])[0]?.value
      if (value?.kind !== 'number') throw new Error(`${told.at(-1)} is a number`)
      const off =
        way === 'ray' ? Math.abs(value.re * 4 - value.im * 3) / 5 : Math.abs(Math.hypot(value.re, value.im) - 5)
      expect(off).toBeLessThan(0.15)
    }),
    { numRuns: 60 },
  )
})

test('what is computed is refused once when one tries to move it, and the picture moves instead', () => {
  const { plane, told } = pointer({ marks: [markOf('S', 2, 2, false)] })
  plane.down(event(pixelOf(2, 2)))
  plane.move(event(pixelOf(4, 2)))
  plane.move(event(pixelOf(6, 2)))
  plane.up(event(pixelOf(6, 2)))
  expect(told).toEqual(['refused S', 'pan 20 0', 'pan 20 0'])
})

test('an interrupted drag is taken back', () => {
  const { plane, told } = pointer(V)
  plane.down(event(pixelOf(3, 4)))
  plane.move(event(pixelOf(9, 9)))
  plane.cancel()
  expect(told.at(-1)).toBe('back')
  plane.up(event(pixelOf(9, 9)))
  expect(told.filter((t) => t.startsWith('drop'))).toEqual([])
})

test('hovering names the mark under the pointer and shows whether it can be grasped', () => {
  const { plane } = pointer({ ...V, marks: [...V.marks, markOf('S', -5, -5, false)] })
  plane.move(event(pixelOf(3, 4)))
  expect([plane.active.value, plane.cursor.value]).toEqual(['V', 'grab'])
  plane.move(event(pixelOf(-5, -5)))
  expect([plane.active.value, plane.cursor.value]).toEqual(['S', 'default'])
  plane.leave()
  expect(plane.active.value).toBeNull()
})

test('by touch a tap selects within a wider reach, and a swipe does not', () => {
  const { plane, told } = pointer(V)
  const { x, y } = pixelOf(3, 4)
  plane.down(event({ x: x + 22, y }, { pointerType: 'touch' }))
  plane.up(event({ x: x + 22, y }, { pointerType: 'touch' }))
  plane.down(event({ x, y }, { pointerType: 'touch' }))
  plane.up(event({ x: x + 60, y }, { pointerType: 'touch' }))
  expect(told).toEqual(['click V by touch'])
})

test('two fingers zoom about their middle and move the picture', () => {
  const { plane, told } = pointer(V)
  plane.down(event({ x: 100, y: 200 }, { pointerType: 'touch', pointerId: 1 }))
  plane.down(event({ x: 200, y: 200 }, { pointerType: 'touch', pointerId: 2 }))
  plane.move(event({ x: 300, y: 200 }, { pointerType: 'touch', pointerId: 2 }))
  expect(told).toEqual(['zoom 2.00 at 200 200', 'pan 50 0'])
})

test('the wheel zooms at the pointer, a wild one no more than a quick one', () => {
  const { plane, told } = pointer(V)
  const wheel = (deltaY: number): WheelEvent =>
    ({ ...event({ x: 50, y: 60 }), deltaY, preventDefault: () => undefined }) as never
  plane.wheel(wheel(-120))
  plane.wheel(wheel(9_999))
  plane.wheel(wheel(240))
  expect(told).toEqual(['zoom 1.21 at 50 60', 'zoom 0.68 at 50 60', 'zoom 0.68 at 50 60'])
})

test('arrow keys move a value; a rest ends the move as one step', () => {
  const { plane, told } = pointer(V)
  const mark = markOf('V', 3, 4)
  plane.nudge(key('ArrowRight', { ctrlKey: true }), mark)
  plane.nudge(key('ArrowUp', { ctrlKey: true }), mark)
  expect(told).toEqual(['drag V: V = 4 + 4j', 'drag V: V = 4 + 5j'])
  jest.advanceTimersByTime(1_000)
  expect(told.at(-1)).toBe('drop V: V = 4 + 5j')
  expect(plane.takeKeysBack()).toBe(false)
})

test('a move by keys is taken back as a whole, and other keys are none of its business', () => {
  const { plane, told } = pointer(V)
  const mark = markOf('V', 3, 4)
  plane.nudge(key('ArrowLeft', { ctrlKey: true }), mark)
  expect(plane.takeKeysBack()).toBe(true)
  jest.advanceTimersByTime(2_000)
  expect(told).toEqual(['drag V: V = 2 + 4j', 'back'])
  expect(plane.nudge(key('a'), mark)).toBe(false)
  expect(plane.nudge(key('ArrowUp'), markOf('S', 1, 1, false))).toBe(true)
  expect(told.at(-1)).toBe('refused S')
})
