import {
  mdiArrowDown,
  mdiArrowUp,
  mdiCheckAll,
  mdiCheckDecagramOutline,
  mdiContentCopy,
  mdiContentDuplicate,
  mdiDeleteOutline,
  mdiEyeOffOutline,
  mdiEyeOutline,
  mdiFunctionVariant,
  mdiGrid,
  mdiStairs,
  mdiLabelOutline,
  mdiPencilOutline,
  mdiRenameOutline,
  mdiTableLarge,
  mdiTableRowPlusAfter,
  mdiTableRowPlusBefore,
  mdiTextBoxOutline,
  mdiUnfoldLessHorizontal,
  mdiUnfoldMoreHorizontal,
} from '@mdi/js'
import type { MenuAction } from '~/components/common/MenuButton.vue'
import { withoutMarks } from '#core/exchange/texText'
import type { CopyForm } from '#core/kinds/kind'
import { parseLine } from '#core/notation/parser'
import { readGrid } from '#core/notation/grid'
import { freeName } from '#core/notation/rename'
import { keyText } from '~/texts/keys'
import { usePlateActions } from '~/composables/plateActions'
import { keptNames } from '~/lines/nameIndex'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'
import { useUnitStore } from '~/stores/unit'

/** What can be done to a line, for its menu, the selection bar and the keys. */
export function useLineActions() {
  const folio = useFolioStore()
  const unit = useUnitStore()
  const results = useResultsStore()
  const desk = useDeskStore()
  const { actionsFor: onPlates } = usePlateActions()

  /** The whole equation as LaTeX: how the line was understood, and what it came to. */
  async function copyEquation(id: string): Promise<void> {
    const value = await results.copyText(id, 'latex')
    const reading = withoutMarks(results.views.get(id)?.reading ?? '')
    if (value === null || reading === '') return
    const text = `${reading} = ${value}`
    await navigator.clipboard.writeText(text)
    folio.tell(`Copied: ${text.length > 60 ? `${text.slice(0, 60)}…` : text}`)
  }

  async function copy(id: string, form: CopyForm): Promise<void> {
    const text = await results.copyText(id, form)
    if (text === null) return
    await navigator.clipboard.writeText(text)
    folio.tell(`Copied: ${text.length > 60 ? `${text.slice(0, 60)}…` : text}`)
  }

  /** F2: a result without a name gets one to be typed over; one with a name can be spelled anew everywhere. */
  function name(id: string): void {
    const view = results.views.get(id)
    const line = folio.lineOf(id)
    if (!line || line.note || !folio.writable) return
    if (view?.name) {
      desk.renaming = view.name
      return
    }
    if (folio.editing?.id === id) folio.keep()
    const source = folio.lineOf(id)?.source ?? ''
    if (source.trim() === '' || view?.kind === 'remark' || view?.kind === 'check') return
    const fresh = freeName(keptNames(folio.lines))
    folio.rewrite(id, `${fresh} = ${source}`, 'name the result')
    folio.edit(id, { from: 0, to: fresh.length })
  }

  /** The grid of a line; of a computed matrix, of its values in a new line. */
  async function openGrid(id: string): Promise<void> {
    if (folio.editing) folio.keep()
    const line = folio.lineOf(id)
    if (!line || line.note) return
    const literal = line.source.trim() === '' || readGrid(parseLine(line.source)) !== null
    if (literal) {
      desk.openGrid(id)
      return
    }
    const values = await results.copyText(id, 'full')
    folio.makeCurrent(id)
    folio.insertBelow([values !== null && readGrid(parseLine(values)) ? values : ''])
    if (folio.current !== null) desk.openGrid(folio.current)
  }

  /** The actions of one line, or of the selection it belongs to. */
  function actionsFor(id: string): readonly MenuAction[] {
    const line = folio.lineOf(id)
    const view = results.views.get(id)
    if (!line) return []
    const index = folio.indexOf(id)
    const several = folio.selected.has(id) && folio.selected.size > 1
    const plural = several ? `${folio.selected.size} lines` : 'line'
    const entry = !line.note && view !== undefined && view.kind !== 'remark' && view.kind !== 'empty'
    const list: MenuAction[] = []
    if (!several) {
      list.push(
        { label: 'Line above', icon: mdiTableRowPlusBefore, key: keyText('above'), run: () => folio.insertAt(index) },
        {
          label: 'Line below',
          icon: mdiTableRowPlusAfter,
          key: keyText('below'),
          run: () => folio.insertAt(index + 1),
        },
      )
      if (entry && view.kind !== 'check')
        list.push(
          view.name
            ? {
                label: `Rename ${view.name} everywhere`,
                icon: mdiRenameOutline,
                key: keyText('name'),
                run: () => name(id),
              }
            : { label: 'Name the result', icon: mdiLabelOutline, key: keyText('name'), run: () => name(id) },
        )
    }
    list.push(
      {
        label: `Duplicate ${plural}`,
        icon: mdiContentDuplicate,
        key: keyText('duplicate'),
        run: () => folio.duplicate(id),
      },
      { label: 'Move up', icon: mdiArrowUp, key: keyText('moveUp'), run: () => folio.moveBy(id, -1) },
      { label: 'Move down', icon: mdiArrowDown, key: keyText('moveDown'), run: () => folio.moveBy(id, 1) },
      {
        label: line.note ? 'Turn into an entry' : 'Turn into a note',
        icon: line.note ? mdiFunctionVariant : mdiTextBoxOutline,
        key: keyText('note'),
        run: () => folio.turn(id),
      },
      {
        label: line.folded ? 'Unfold' : 'Fold',
        icon: line.folded ? mdiUnfoldMoreHorizontal : mdiUnfoldLessHorizontal,
        key: keyText('fold'),
        run: () => folio.toggle(id, 'folded'),
      },
    )
    if (!several) list.push(...onPlates(id))
    if (entry || several)
      list.push({
        label: line.hidden ? 'Show the result' : 'Hide the result',
        icon: line.hidden ? mdiEyeOutline : mdiEyeOffOutline,
        key: keyText('hide'),
        run: () => folio.toggle(id, 'hidden'),
      })
    if (!several && view && view.readout.shape !== 'none' && !view.problem) list.push(...copies(id))
    if (
      !several &&
      !line.note &&
      (view?.readout.shape === 'grid' || view?.readout.shape === 'list' || line.source === '')
    )
      list.push({ label: 'Fill in a grid', icon: mdiGrid, key: keyText('grid'), run: () => void openGrid(id) })
    if (!several && view?.readout.shape === 'grid')
      list.push({ label: 'Reduce row by row', icon: mdiStairs, run: () => desk.openBench(id) }, ...truths(id))
    if (entry && !several)
      list.push({
        label: line.answer ? `Answer ${line.answer}: change` : 'Mark as an answer',
        icon: mdiCheckDecagramOutline,
        run: () => (desk.answering = id),
      })
    if (view?.stamped && !several)
      list.push({
        label: 'Write the unit in',
        icon: mdiPencilOutline,
        run: () => void unit.write([id]),
      })
    list.push({
      label: `Delete ${plural}`,
      icon: mdiDeleteOutline,
      key: keyText('remove'),
      danger: true,
      run: () => folio.remove(id),
    })
    return list
  }

  /** Ordinary lines that show that a matrix is what it should be. */
  function truths(id: string): MenuAction[] {
    const view = results.views.get(id)
    const shape = view?.readout
    const kept = view?.name
    if (!kept || shape?.shape !== 'grid') return []
    const put =
      (...sources: string[]) =>
      (): void => {
        folio.makeCurrent(id)
        folio.insertBelow(sources)
      }
    if (shape.rows !== shape.cols)
      return [{ label: 'Reduced form and rank', icon: mdiCheckAll, run: put(`rref(${kept})`, `rank(${kept})`) }]
    const taken = keptNames(folio.lines)
    const free = (stem: string): string => (taken.has(stem) ? freeName(taken, stem) : stem)
    const [inverse, x, b] = [free(`${kept}_inv`), free('x'), free('b')]
    const unit = `identity(${shape.rows})`
    return [
      {
        label: 'Inverse, with check',
        icon: mdiCheckAll,
        run: put(`${inverse} = ${kept}^-1`, `${kept}*${inverse} ~~ ${unit}`),
      },
      {
        label: 'Solve, with residual',
        icon: mdiCheckAll,
        run: put(
          `${b} = [${Array.from({ length: shape.rows }, (_, k) => (k === 0 ? '1' : '0')).join(', ')}]`,
          `${x} = solve(${kept}, ${b})`,
          `norm(${kept}*${x} - ${b})  # residual`,
        ),
      },
      {
        label: 'Eigenpairs, side by side',
        icon: mdiCheckAll,
        run: put(
          `eigenvalues(${kept})`,
          `eigenvectors(${kept})`,
          `${kept}*eigenvectors(${kept})  # A·v`,
          `eigenvectors(${kept})*diag(eigenvalues(${kept}))  # λ·v`,
        ),
      },
    ]
  }

  function copies(id: string): MenuAction[] {
    const view = results.views.get(id)
    const twin = view?.readout.shape === 'twin'
    const form = (label: string, kind: CopyForm): MenuAction => ({
      label,
      icon: kind === 'csv' ? mdiTableLarge : mdiContentCopy,
      run: () => void copy(id, kind),
    })
    return [
      form(twin ? 'Copy rectangular' : 'Copy as shown', 'shown'),
      ...(twin ? [form('Copy polar', 'polar')] : []),
      form('Copy in full', 'full'),
      form('Copy as LaTeX', 'latex'),
      { label: 'Copy the equation as LaTeX', icon: mdiContentCopy, run: () => void copyEquation(id) },
      form('Copy as CSV', 'csv'),
    ]
  }

  return { actionsFor, name, copy, openGrid }
}
