import type { KeyName } from '~/texts/keys'
import { keyText } from '~/texts/keys'
import { focusedPart, focusLine, focusPlate } from '~/browser/regions'
import { useLineActions } from '~/composables/lineActions'
import { useTakingInHand } from './takingInHand'
import { usePlateActions } from '~/composables/plateActions'
import { usePlatesStore } from '~/stores/plates'
import { useDeskStore } from '~/stores/desk'
import { useDoorStore } from '~/stores/door'
import { useFolioStore } from '~/stores/folio'
import { usePreferencesStore } from '~/stores/preferences'
import { useResultsStore } from '~/stores/results'
import { useUnitStore } from '~/stores/unit'

/** Every action of the folio page: for the keys and for the find palette. */
export interface FolioAction {
  readonly label: string
  readonly key?: KeyName
  readonly also?: string
  readonly run: () => void
}

export function useFolioActions() {
  const folio = useFolioStore()
  const results = useResultsStore()
  const unit = useUnitStore()
  const desk = useDeskStore()
  const door = useDoorStore()
  const plates = usePlatesStore()
  const preferences = usePreferencesStore()
  const { actionsFor, name, openGrid } = useLineActions()
  const { toggle: togglePlate, curves, locus } = usePlateActions()
  const { take: takeInHand } = useTakingInHand()

  /** Runs an action on the current line. */
  const onLine = (run: (id: string) => void) => () => {
    const id = folio.editing?.id ?? folio.current
    if (id !== null) run(id)
  }

  function stroll(): void {
    folio.keep()
    const at = folio.current === null ? 0 : Math.max(0, folio.indexOf(folio.current))
    desk.stroll = desk.stroll === null ? at : null
  }

  /** The working of the current line. */
  function showWorking(): void {
    const id = folio.editing?.id ?? folio.current
    if (folio.editing) folio.keep()
    if (id === null) desk.show('working')
    else desk.openWorking(id)
  }

  /** Of the line that is shown already it goes again. */
  function toggleWorking(): void {
    const id = folio.editing?.id ?? folio.current
    if (desk.panel === 'working' && (id === null || desk.workingOf === id)) desk.hide('working')
    else showWorking()
  }

  /** From the line to the plate, to the leaf, and back to the line. */
  function onwards(): void {
    const from = focusedPart()
    if (from === 'ledger') {
      desk.show('plates')
      void focusPlate()
    } else if (from === 'plates' && desk.leaf) desk.show(desk.leaf)
    else {
      desk.part = 'ledger'
      void focusLine()
    }
  }

  /** The actions that have a key of their own. */
  const keyed: readonly (FolioAction & { readonly key: KeyName })[] = [
    { label: 'Undo', key: 'undo', run: () => folio.undo() },
    { label: 'Redo', key: 'redo', run: () => folio.redo() },
    { label: 'Find', key: 'find', run: () => (desk.findOpen = true) },
    { label: 'Open or close the index', key: 'index', also: 'names', run: () => (desk.indexOpen = !desk.indexOpen) },
    {
      label: 'Runs: the folio with other values, side by side',
      key: 'runs',
      also: 'vary watch compare sets scenarios cases what if rerun again parameters table results',
      run: () => desk.toggle('runs'),
    },
    {
      label: 'Working: how the line’s value comes about, step by step',
      key: 'working',
      also: 'steps show by hand solution derivation how why explain method intermediate',
      run: toggleWorking,
    },
    { label: 'Journal', key: 'journal', also: 'history earlier states restore', run: () => desk.toggle('journal') },
    {
      label: 'Handbook',
      key: 'handbook',
      also: 'help functions constants reference notation syntax percent examples manual how',
      run: () => desk.toggle('handbook'),
    },
    {
      label: 'Exchange: files in and out',
      key: 'exchange',
      also: 'import export save open copy download csv latex markdown touchstone matrix market file share print backup',
      run: () => desk.toggle('exchange'),
    },
    { label: 'Select all lines', key: 'selectAll', also: 'everything mark', run: () => folio.selectAll() },
    { label: 'Stroll through the folio', key: 'stroll', also: 'present step line by line show', run: stroll },
    {
      label: 'On to the plate, the leaf, and back to the line',
      key: 'onwards',
      also: 'focus pane switch',
      run: onwards,
    },
    { label: 'Keys', key: 'keys', also: 'shortcuts', run: () => (desk.keysOpen = true) },
    { label: 'Name the result, or rename it everywhere', key: 'name', run: onLine(name) },
    {
      label: 'Turn the line into a note or back',
      key: 'note',
      also: 'text comment markdown',
      run: onLine((id) => folio.turn(id)),
    },
    {
      label: 'Grid: fill a vector or matrix',
      key: 'grid',
      also: 'matrix table cells',
      run: onLine((id) => void openGrid(id)),
    },
    { label: 'Put on the plate or take off', key: 'plate', also: 'plane show draw', run: onLine(togglePlate) },
    {
      label: 'Curve of a sweep, or its magnitude in dB and angle',
      key: 'curves',
      also: 'plot frequency response draw',
      run: onLine(curves),
    },
    { label: 'Locus of a complex sweep', key: 'locus', also: 'plot plane draw', run: onLine(locus) },
    {
      label: 'Take a number of the line in hand',
      key: 'vernier',
      also: 'vernier slider slide parameter vary scale',
      run: onLine(takeInHand),
    },
    { label: 'Hide or show the result', key: 'hide', run: onLine((id) => folio.toggle(id, 'hidden')) },
    { label: 'Fold or unfold', key: 'fold', run: onLine((id) => folio.toggle(id, 'folded')) },
  ]

  function all(): readonly (FolioAction & { readonly text?: string })[] {
    const current = folio.editing?.id ?? folio.current
    const lineActions = current === null ? [] : actionsFor(current)
    const number = current === null ? 0 : folio.indexOf(current) + 1
    const known = new Set<string>(keyed.map((a) => keyText(a.key)))
    return [
      ...keyed,
      ...lineActions
        .filter((a) => !a.key || !known.has(a.key))
        .map((a) => ({ label: `${a.label} (line ${number})`, ...(a.key ? { text: a.key } : {}), run: a.run })),
      {
        label: 'Check my working: is each line equal to the next?',
        also: 'verify chain steps mistake slip hand calculation correct',
        run: () => current !== null && desk.openChain(current, ''),
      },
      {
        label: 'Delete all lines',
        also: 'clear empty erase everything remove start over',
        run: () => folio.removeAll(new Set(folio.lines.map((l) => l.id))),
      },
      {
        label: 'Delete all kept names: every line that defines one',
        also: 'clear variables constants erase remove forget',
        run: () => folio.removeAll(new Set(folio.lines.filter((l) => results.views.get(l.id)?.name).map((l) => l.id))),
      },
      {
        label: 'Title of the folio: write another',
        also: 'rename name heading caption',
        run: () => (desk.titling = true),
      },
      {
        label: 'New note below: text, headings, lists, bold, formulas',
        also: 'title heading comment markdown paragraph write prose',
        run: () => folio.insertNoteBelow(folio.editing?.id ?? folio.current, ''),
      },
      { label: 'New line at the end', run: () => folio.insertAt(folio.lines.length) },
      {
        label: 'Conventions, with examples',
        also: 'angle degrees radians digits decimals precision rounding accuracy style scientific engineering settings options',
        run: () => (desk.conventionsOpen = true),
      },
      { label: 'Angles in degrees', run: () => folio.convene({ angle: 'deg', degrees: 'decimal' }) },
      {
        label: 'Angles in degrees, minutes and seconds',
        run: () => folio.convene({ angle: 'deg', degrees: 'minutes' }),
      },
      { label: 'Angles in radians', run: () => folio.convene({ angle: 'rad' }) },
      { label: 'Write the unit into every line that depends on it', also: 'stamp', run: () => void unit.writeAll() },
      {
        label: preferences.grouping ? 'Hide the grouping' : 'Show the grouping',
        also: 'brackets precedence',
        run: () => (preferences.grouping = !preferences.grouping),
      },
      {
        label: preferences.close ? 'Roomy rows' : 'Close rows: more lines in sight',
        also: 'dense compact small height',
        run: () => (preferences.close = !preferences.close),
      },
      {
        label: preferences.theme === 'day' ? 'Night theme' : 'Day theme',
        also: 'dark light',
        run: () => (preferences.theme = preferences.theme === 'day' ? 'night' : 'day'),
      },
      { label: 'Plates', also: 'plane', run: () => desk.show('plates') },
      ...plates.all.map((plate, k) => ({
        label: `Plate ${k + 1}: ${plate.caption}`,
        also: 'figure',
        run: () => {
          plates.choose(plate.id)
          desk.show('plates')
        },
      })),
      { label: 'New plane plate', also: 'figure complex', run: () => plates.addPlane() },
      { label: 'New curve plate', also: 'figure plot sweep', run: () => plates.addCurve() },
      {
        label: 'The sheet: hand in',
        also: 'print printing pdf paper submit export save title course name',
        run: () => {
          folio.keep()
          desk.sheetOpen = true
        },
      },
      { label: 'To the shelf', also: 'folios home', run: () => void navigateTo('/') },
      ...(door.inside
        ? [
            {
              label: 'Sign out…',
              also: 'leave door passphrase',
              run: () => void Promise.resolve(navigateTo('/')).then(() => door.ask()),
            },
          ]
        : []),
    ]
  }

  return { keyed, all, stroll, showWorking }
}
