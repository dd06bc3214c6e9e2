import { defineStore } from 'pinia'
import { createDocument, noLinks } from './folio/document'
import { createEditor } from './folio/editing'
import { createHistory } from './folio/history'
import { createLineChanges } from './folio/lineChanges'
import { createSelection } from './folio/selection'
import { createSession } from './folio/session'

/** The open folio: what it is, its history, the line that is typed, what is chosen, and where it is kept. */
export const useFolioStore = defineStore('folio', () => {
  const links = noLinks()
  const doc = createDocument()
  const history = createHistory(doc, links)
  const editor = createEditor(doc, links, history)
  const selection = createSelection(doc, editor)
  const changes = createLineChanges(doc, history, editor, selection)
  const session = createSession(doc, links, history, editor)

  function undo(): void {
    editor.leave()
    history.undo()
  }

  function redo(): void {
    editor.leave()
    history.redo()
  }

  const { id, notice, state, saver, role, editing, text, current, selected, lines, conventions, title, plates, enclosures, head, sets } = doc // prettier-ignore
  const { writable, tucked, shownLines, indexOf, lineOf, clearSelection, tell, makeCurrent } = doc
  const { entered, canUndo, canRedo, perform, reveal } = history
  const { overlong, edit, type, keep, restore, refuses, neighbour, step, dismissNotice } = editor
  const { selectTo, selectAll, selectOne, toggleSelected, targets } = selection
  return {
    id, notice, state, saver, role, editing, text, current, selected, lines, conventions, title, plates, enclosures, head, sets,
    writable, tucked, shownLines, indexOf, lineOf, clearSelection, tell, makeCurrent,
    entered, canUndo, canRedo, perform, reveal, undo, redo,
    overlong, edit, type, keep, restore, refuses, neighbour, step, dismissNotice,
    selectTo, selectAll, selectOne, toggleSelected, targets,
    ...changes,
    ...session,
  } // prettier-ignore
})
