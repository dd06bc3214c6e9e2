import { isKey, KEY_GROUPS, KEYS, keyText } from './keys'
import type { KeyName } from './keys'

const press = (key: string, ...held: ('ctrl' | 'shift' | 'alt' | 'meta')[]): KeyboardEvent =>
  ({
    key,
    ctrlKey: held.includes('ctrl'),
    shiftKey: held.includes('shift'),
    altKey: held.includes('alt'),
    metaKey: held.includes('meta'),
  }) as KeyboardEvent

test.each([
  ['find', press('F8'), true],
  ['find', press('F8', 'shift'), false],
  ['index', press('F8', 'shift'), true],
  ['redo', press('y', 'ctrl'), true],
  ['redo', press('Z', 'ctrl', 'shift'), true],
  ['redo', press('z', 'ctrl'), false],
  ['undo', press('z', 'meta'), true],
  ['remove', press('Delete', 'alt'), true],
  ['duplicate', press('ArrowDown', 'alt', 'shift'), true],
  ['moveDown', press('ArrowDown', 'alt', 'shift'), false],
] as const)('%s', (name, event, expected) => expect(isKey(event, name)).toBe(expected))

test('every key is listed once, and no two actions of one place share a key', () => {
  const listed = KEY_GROUPS.flatMap((g) => g.keys)
  expect([...listed].sort()).toEqual(Object.keys(KEYS).sort())
  const everywhere = KEY_GROUPS.filter((g) => g.title === 'Lines' || g.title === 'The folio').flatMap((g) => g.keys)
  const keys = everywhere.flatMap((name: KeyName) => KEYS[name].keys as readonly string[])
  expect(new Set(keys).size).toBe(keys.length)
  expect(keyText('find')).toBe('F8')
})
