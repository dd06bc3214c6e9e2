/** @jest-environment jsdom */
import { afterEach, beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { EditorView } from '@codemirror/view'
import { createEntry, markProblem } from './entryEditor'
import type { Entry, EntryActions } from './entryEditor'

beforeAll(() => {
  // The browser of these tests lays nothing out: every text is a point.
  const nowhere = () => ({ left: 0, right: 0, top: 0, bottom: 0, width: 0, height: 0, x: 0, y: 0, toJSON: () => ({}) })
  Object.assign(Range.prototype, { getClientRects: () => [], getBoundingClientRect: nowhere })
})

type Calls = { [K in keyof EntryActions]: jest.Mock<EntryActions[K]> }
let calls: Calls
let entry: Entry

beforeEach(() => {
  calls = {
    change: jest.fn(),
    keepAndGoOn: jest.fn(),
    restore: jest.fn(),
    step: jest.fn(() => true),
    insertBelow: jest.fn(),
    insertAbove: jest.fn(),
    move: jest.fn(),
    duplicate: jest.fn(),
    recall: jest.fn(() => false),
    recalling: jest.fn(() => false),
    lastAndEmpty: jest.fn(() => false),
    find: jest.fn(),
    remove: jest.fn(),
    removeEmpty: jest.fn(),
    undo: jest.fn(),
    redo: jest.fn(),
    paste: jest.fn(),
    pasteTable: jest.fn(() => false),
    refuses: jest.fn(() => false),
    applyFix: jest.fn(() => true),
    complete: jest.fn(() => []),
  }
})
afterEach(() => {
  entry.view.destroy()
  document.body.replaceChildren()
})

function open(text: string, caret: Parameters<typeof createEntry>[2] = 'end'): void {
  entry = createEntry(document.body, text, caret, 'Line 1, entry', calls)
}
const text = (): string => entry.view.state.doc.toString()
const caret = (): number => entry.view.state.selection.main.head

/** Types as a keyboard does: what takes input over has its say first. */
function type(keys: string): void {
  for (const key of keys) {
    const { view } = entry
    const { from, to } = view.state.selection.main
    const insert = () => view.state.update({ changes: { from, to, insert: key }, selection: { anchor: from + 1 }, userEvent: 'input.type' }) // prettier-ignore
    const taken = view.state.facet(EditorView.inputHandler).some((handler) => handler(view, from, to, key, insert))
    if (!taken) view.dispatch(insert())
  }
}

function press(key: string, modifiers: KeyboardEventInit = {}): boolean {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...modifiers })
  entry.view.contentDOM.dispatchEvent(event)
  return event.defaultPrevented
}

function paste(clipboard: string): boolean {
  const event = Object.assign(new Event('paste', { bubbles: true, cancelable: true }), {
    clipboardData: { getData: (kind: string) => (kind === 'text/plain' ? clipboard : '') },
  })
  entry.view.contentDOM.dispatchEvent(event)
  return event.defaultPrevented
}

describe('signs while they are typed', () => {
  test('/_ becomes ∠, and one undo brings the typed form back', () => {
    open('')
    type('230/_')
    expect(text()).toBe('230∠')
    press('z', { ctrlKey: true })
    expect(text()).toBe('230/_')
    expect(calls.undo).not.toHaveBeenCalled()
  })

  test.each([
    ['30deg', '30°'],
    ['(a)deg', '(a)°'],
    ['30 deg', '30°'],
    ['a deg', 'a deg'],
    ['degree', 'degree'],
    ['5_', '5_'],
  ])('%s becomes %s', (typed, shown) => {
    open('')
    type(typed)
    expect(text()).toBe(shown)
  })

  test('what stands behind the caret stays, and the caret is behind the sign', () => {
    open('5+2', 1)
    type('/_')
    expect(text()).toBe('5∠+2')
    expect(caret()).toBe(2)
  })

  test('over a selection nothing is taken over', () => {
    open('5/x', { from: 2, to: 3 })
    type('_')
    expect(text()).toBe('5/_')
  })
})

describe('brackets and quotes', () => {
  test.each([
    ['(', '()'],
    ['[', '[]'],
    ['"', '""'],
    ['{', '{'],
  ])('%s becomes %s with the caret inside', (typed, shown) => {
    open('')
    type(typed)
    expect([text(), caret()]).toEqual([shown, 1])
  })

  test('the closing one that is there is typed over', () => {
    open('')
    type('(2)')
    expect(text()).toBe('(2)')
  })
})

describe('keys', () => {
  test.each([
    ['Enter', {}, 'keepAndGoOn'],
    ['Enter', { ctrlKey: true }, 'insertBelow'],
    ['Enter', { ctrlKey: true, shiftKey: true }, 'insertAbove'],
    ['Escape', {}, 'restore'],
    ['ArrowDown', { altKey: true, shiftKey: true }, 'duplicate'],
    ['Delete', { altKey: true }, 'remove'],
    ['Enter', { altKey: true }, 'applyFix'],
    ['y', { ctrlKey: true }, 'redo'],
  ] as const)('%s %j: %s', (key, modifiers, action) => {
    open('a = 2')
    expect(press(key, modifiers)).toBe(true)
    expect(calls[action]).toHaveBeenCalledTimes(1)
    expect(text()).toBe('a = 2')
  })

  test('arrows leave the line, and with Alt they move it', () => {
    open('a = 2')
    press('ArrowUp')
    press('ArrowDown')
    expect(calls.step.mock.calls).toEqual([[-1], [1]])
    press('ArrowUp', { altKey: true })
    press('ArrowDown', { altKey: true })
    expect(calls.move.mock.calls).toEqual([[-1], [1]])
  })

  test('in an empty last line ↑ brings earlier entries back, and goes up where there are none', () => {
    open('')
    calls.lastAndEmpty.mockReturnValue(true)
    calls.recall.mockReturnValueOnce(true)
    press('ArrowUp')
    expect(calls.step).not.toHaveBeenCalled()
    press('ArrowUp')
    expect(calls.step).toHaveBeenCalledWith(-1)
  })

  test('while entries are brought back ↓ goes on among them', () => {
    open('x')
    calls.recalling.mockReturnValue(true)
    calls.recall.mockReturnValueOnce(true)
    press('ArrowDown')
    expect(calls.recall).toHaveBeenCalledWith(1)
    expect(calls.step).not.toHaveBeenCalled()
  })

  test('? and Backspace mean something only in an empty line', () => {
    open('')
    press('?')
    press('Backspace')
    expect([calls.find.mock.calls.length, calls.removeEmpty.mock.calls.length]).toEqual([1, 1])
    entry.view.destroy()
    open('a')
    press('?')
    press('Backspace')
    expect([calls.find.mock.calls.length, calls.removeEmpty.mock.calls.length]).toEqual([1, 1])
    expect(text()).toBe('')
  })

  test('undo goes back through the typing first, and past its start through the folio', () => {
    open('a')
    type('b')
    press('z', { ctrlKey: true })
    expect([text(), calls.undo.mock.calls.length]).toEqual(['a', 0])
    press('z', { ctrlKey: true })
    expect([text(), calls.undo.mock.calls.length]).toEqual(['a', 1])
  })

  test('Tab without a list goes on', () => {
    open('sq')
    expect(press('Tab')).toBe(false)
  })
})

describe('one line of text', () => {
  test('a change with a line break is none', () => {
    open('a')
    entry.view.dispatch({ changes: { from: 1, insert: '\nb' } })
    expect(text()).toBe('a')
    expect(calls.change).not.toHaveBeenCalled()
  })

  test('one that grew too long is none; one that is too long may become shorter', () => {
    open('abc')
    calls.refuses.mockReturnValue(true)
    type('d')
    expect(text()).toBe('abc')
    entry.view.dispatch({ changes: { from: 0, to: 1 } })
    expect(text()).toBe('bc')
    expect(calls.change).toHaveBeenCalledWith('bc')
  })

  test('several pasted lines: the first into this one, the rest below; whatever ends them', () => {
    open('x = ?', { from: 4, to: 5 })
    expect(paste('2\r\ny = 3\rz = 4\n')).toBe(true)
    expect(calls.paste).toHaveBeenCalledWith('x = 2', ['y = 3', 'z = 4'])
    expect(text()).toBe('x = ?')
  })

  test('a pasted table is shown first, and one line is pasted as text', () => {
    open('')
    calls.pasteTable.mockReturnValueOnce(true)
    expect(paste('1\t2\n3\t4\n')).toBe(true)
    expect(calls.paste).not.toHaveBeenCalled()
    paste('2 + 3')
    expect(calls.paste).not.toHaveBeenCalled()
    expect(text()).toBe('2 + 3')
  })
})

describe('the place of a problem', () => {
  const marked = (): string[] => [...entry.view.contentDOM.querySelectorAll('.problem-mark')].map((m) => m.textContent ?? '') // prettier-ignore

  test('is marked until the text changes', () => {
    open('1 + foo')
    entry.view.dispatch({ effects: markProblem.of({ from: 4, to: 7 }) })
    expect(marked()).toEqual(['foo'])
    type('x')
    expect(marked()).toEqual([])
  })

  test('where something is missing a sign stands that no reader speaks; beyond the end it stands at the end', () => {
    open('1 +')
    entry.view.dispatch({ effects: markProblem.of({ from: 9, to: 9 }) })
    expect(entry.view.contentDOM.querySelector('.missing-mark')?.getAttribute('aria-hidden')).toBe('true')
    entry.view.dispatch({ effects: markProblem.of(null) })
    expect(entry.view.contentDOM.querySelector('.missing-mark')).toBeNull()
  })
})

test('a screen reader hears which line it is, and hears it anew when the line has moved', () => {
  open('a')
  expect(entry.view.contentDOM.getAttribute('aria-label')).toBe('Line 1, entry')
  entry.setLabel('Line 4, entry')
  expect(entry.view.contentDOM.getAttribute('aria-label')).toBe('Line 4, entry')
})
