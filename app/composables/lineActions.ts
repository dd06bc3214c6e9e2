import {
  mdiArrowDown,
  mdiArrowUp,
  mdiBinoculars,
  mdiCheckAll,
  mdiCheckDecagramOutline,
  mdiContentDuplicate,
  mdiDeleteOutline,
  mdiEyeOffOutline,
  mdiEyeOutline,
  mdiFunctionVariant,
  mdiGrid,
  mdiStairs,
  mdiStairsUp,
  mdiLabelOutline,
  mdiPencilOutline,
  mdiRenameOutline,
  mdiRulerSquareCompass,
  mdiTableRowPlusAfter,
  mdiTableRowPlusBefore,
  mdiTextBoxOutline,
  mdiTuneVariant,
  mdiUnfoldLessHorizontal,
  mdiUnfoldMoreHorizontal,
} from '@mdi/js'
import type { MenuAction } from '~/components/common/MenuButton.vue'
import { parseLine } from '#core/notation/parser'
import type { Line } from '#shared/folio'
import { begunName, readGrid } from '#core/notation/grid'
import { freeName } from '#core/notation/rename'
import { keyText } from '~/texts/keys'
import { useLineCopies } from '~/composables/lineCopies'
import { useMatrixChecks } from '~/composables/matrixChecks'
import { usePlateActions } from '~/composables/plateActions'
import { useTakingInHand } from '~/composables/takingInHand'
import { keptNames } from '~/lines/nameIndex'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'
import { useRunsStore } from '~/stores/runs'
import { useUnitStore } from '~/stores/unit'

/** Lines that come to nothing of their own. */
const WITHOUT_VALUE: ReadonlySet<string> = new Set(['remark', 'empty', 'sought', 'equation'])

/** What can be done to a line, for its menu, the selection bar and the keys. */
export function useLineActions() {
  const folio = useFolioStore()
  const unit = useUnitStore()
  const results = useResultsStore()
  const desk = useDeskStore()
  const runs = useRunsStore()
  const { actionsFor: onPlates } = usePlateActions()
  const { copy, copies } = useLineCopies()
  const { checksFor } = useMatrixChecks()
  const { take: takeInHand } = useTakingInHand()

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
    if (source.trim() === '' || view?.kind === 'check' || (view && WITHOUT_VALUE.has(view.kind))) return
    const fresh = freeName(keptNames(folio.lines))
    folio.rewrite(id, `${fresh} = ${source}`, 'name the result')
    folio.edit(id, { from: 0, to: fresh.length })
  }

  /** The grid of a line; of a computed matrix, of its values in a new line. */
  async function openGrid(id: string): Promise<void> {
    if (folio.editing) folio.keep()
    const line = folio.lineOf(id)
    if (!line || line.note) return
    const literal =
      line.source.trim() === '' || begunName(line.source) !== null || readGrid(parseLine(line.source)) !== null
    if (literal) {
      desk.openGrid(id)
      return
    }
    const values = await results.copyText(id, 'full')
    folio.makeCurrent(id)
    folio.insertBelow([values !== null && readGrid(parseLine(values)) ? values : ''])
    if (folio.current !== null) desk.openGrid(folio.current)
  }

  /** Whether its value is tried in several sets, or its result compared under them. */
  function inRuns(line: Line): MenuAction[] {
    const mark = (as: 'varied' | 'watched', on: boolean | undefined) => (): void => {
      runs.mark(line.id, on ? null : as)
      if (!on) desk.show('runs')
    }
    return [
      { label: line.varied ? 'No longer vary in runs' : 'Vary in runs', icon: mdiTuneVariant, run: mark('varied', line.varied) },
      { label: line.watched ? 'No longer watch in runs' : 'Watch in runs', icon: mdiBinoculars, run: mark('watched', line.watched) },
    ] // prettier-ignore
  }

  /** The entries that are selected, in their order. */
  function selectedTexts(): string {
    return folio.lines.flatMap((l) => (folio.selected.has(l.id) && !l.note ? [l.source] : [])).join('\n')
  }

  /** The actions of one line, or of the selection it belongs to. */
  function actionsFor(id: string): readonly MenuAction[] {
    const line = folio.lineOf(id)
    const view = results.views.get(id)
    if (!line) return []
    const index = folio.indexOf(id)
    const several = folio.selected.has(id) && folio.selected.size > 1
    const plural = several ? `${folio.selected.size} lines` : 'line'
    const entry = !line.note && view !== undefined && !WITHOUT_VALUE.has(view.kind)
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
      if (entry && view.kind !== 'check' && view.answers.length === 0)
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
    if (!several && view && view.numbers.length > 0 && folio.writable)
      list.push({ label: 'Take a number in hand', icon: mdiRulerSquareCompass, key: keyText('vernier'), run: () => takeInHand(id) }) // prettier-ignore
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
    if (entry && !several)
      list.push({
        label: 'Show the working',
        icon: mdiStairsUp,
        key: keyText('working'),
        run: () => desk.openWorking(id),
      })
    if (several)
      list.push({ label: 'Check as a working', icon: mdiCheckAll, run: () => desk.openChain(id, selectedTexts()) })
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
      (view?.readout.shape === 'grid' ||
        view?.readout.shape === 'list' ||
        line.source === '' ||
        begunName(line.source) !== null)
    )
      list.push({ label: 'Fill in a grid', icon: mdiGrid, key: keyText('grid'), run: () => void openGrid(id) })
    if (!several && view?.readout.shape === 'grid')
      list.push({ label: 'Reduce row by row', icon: mdiStairs, run: () => desk.openBench(id) }, ...checksFor(id))
    if (!several && view && view.answers.length > 0)
      list.push({ label: 'Open on the bench', icon: mdiStairs, run: () => desk.openBench(id) })
    if (entry && !several)
      list.push({
        label: line.answer ? `Answer ${line.answer}: change` : 'Mark as an answer',
        icon: mdiCheckDecagramOutline,
        run: () => (desk.answering = id),
      })
    if (entry && !several) list.push(...inRuns(line))
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

  return { actionsFor, name, copy, openGrid }
}
