import { tellOperation } from './journalText'

const id = 'line-0001'
test.each([
  [{ type: 'edit', id, source: 'a = 2', was: 'a = 1' } as const, 'changed to', 'a = 2'],
  [{ type: 'edit', id, source: 'a = 2', was: '' } as const, 'entered', 'a = 2'],
  [{ type: 'edit', id, source: '', was: 'a = 1' } as const, 'emptied', 'a = 1'],
  [{ type: 'insert', at: 0, line: { id, source: 'b' } } as const, 'entered', 'b'],
  [{ type: 'insert', at: 0, line: { id, source: '' } } as const, 'new line', ''],
  [{ type: 'remove', id } as const, 'deleted a line', ''],
  [{ type: 'move', id, to: 4 } as const, 'moved a line to place 5', ''],
  [{ type: 'convene', conventions: { angle: 'rad', digits: 7 } } as const, 'conventions:', 'rad, 7'],
  [{ type: 'rename', title: 'Lamp' } as const, 'title:', 'Lamp'],
  [{ type: 'mark', id, marks: { note: true } } as const, 'turned a line into a note', ''],
  [{ type: 'mark', id, marks: { note: false } } as const, 'turned a note into an entry', ''],
  [{ type: 'mark', id, marks: { hidden: true } } as const, 'hid a result', ''],
  [{ type: 'mark', id, marks: { folded: false } } as const, 'unfolded', ''],
])('%j', (operation, did, text) => expect(tellOperation(operation)).toEqual({ did, text }))
