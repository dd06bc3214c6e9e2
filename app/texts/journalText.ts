import type { Operation } from '#shared/operations'

/** An operation in words, with the text it brought. */
export function tellOperation(operation: Operation): { readonly did: string; readonly text: string } {
  switch (operation.type) {
    case 'edit':
      return operation.source === ''
        ? { did: 'emptied', text: operation.was }
        : { did: operation.was === '' ? 'entered' : 'changed to', text: operation.source }
    case 'insert':
      return operation.line.source === ''
        ? { did: 'new line', text: '' }
        : { did: 'entered', text: operation.line.source }
    case 'remove':
      return operation.was ? { did: 'deleted', text: operation.was } : { did: 'deleted a line', text: '' }
    case 'move':
      return { did: `moved a line to place ${operation.to + 1}`, text: '' }
    case 'convene':
      return { did: 'conventions:', text: Object.values(operation.conventions).join(', ') }
    case 'rename':
      return { did: 'title:', text: operation.title }
    case 'plate':
      return { did: 'changed a plate:', text: operation.plate.caption }
    case 'unplate':
      return { did: 'took a plate away', text: '' }
    case 'enclose':
      return { did: 'enclosed', text: operation.enclosure.name }
    case 'unenclose':
      return { did: 'took out', text: operation.name }
    case 'set':
      return { did: 'changed a set of values:', text: operation.set.name }
    case 'unset':
      return { did: 'took a set of values away', text: '' }
    case 'head':
      return { did: 'head of the sheet:', text: Object.values(operation.head).join(', ') }
    case 'mark':
      return { did: markText(operation.marks), text: '' }
  }
}

function markText(marks: Extract<Operation, { type: 'mark' }>['marks']): string {
  if (marks.note !== undefined) return marks.note ? 'turned a line into a note' : 'turned a note into an entry'
  if (marks.answer !== undefined)
    return marks.answer === '' ? 'no longer marked as an answer' : `marked as answer ${marks.answer}`
  if (marks.hidden !== undefined) return marks.hidden ? 'hid a result' : 'showed a result'
  if (marks.varied) return 'varies a line in runs'
  if (marks.watched) return 'watches a line in runs'
  if (marks.varied === false || marks.watched === false) return 'took a line out of the runs'
  return marks.folded ? 'folded' : 'unfolded'
}
