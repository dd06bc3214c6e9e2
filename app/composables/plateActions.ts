import { mdiChartLine, mdiChartScatterPlot, mdiTableLarge, mdiVectorCurve, mdiVectorPolyline } from '@mdi/js'
import type { MenuAction } from '~/components/common/MenuButton.vue'
import { isOn } from '#shared/plate'
import { keyText } from '~/texts/keys'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { isTransferView, usePlatesStore } from '~/stores/plates'
import type { Candidate } from '~/stores/plates'

/** What can be done with a line's value on the plates: for its menu and the keys. */
export function usePlateActions() {
  const folio = useFolioStore()
  const plates = usePlatesStore()
  const desk = useDeskStore()

  /** One key from a sweep to its usual pictures. */
  function locus(line: string): void {
    if (folio.editing?.id === line) folio.keep()
    const candidate = candidateOf(line)
    if (!candidate?.view.drawn?.locus)
      folio.tell('Only a sweep of numbers, or a transfer function, that is kept under a name has a locus.')
    else show(() => plates.showLocus(line))
  }
  function curves(line: string): void {
    if (folio.editing?.id === line) folio.keep()
    if (!candidateOf(line)?.sweep)
      folio.tell('Only a sweep, or a transfer function, that is kept under a name has a curve.')
    else show(() => plates.showCurves(line))
  }
  function show(make: () => void): void {
    if (!folio.writable) return
    make()
    desk.show('plates')
  }

  const candidateOf = (line: string) => plates.candidates.find((c) => c.line === line)

  /** Puts the value on the large plate, or takes it off; a result without a name gets one in the ledger first. */
  function toggle(line: string): void {
    if (folio.editing?.id === line) folio.keep()
    const candidate = candidateOf(line)
    if (!candidate || !folio.writable || !plates.candidatesFor(plates.plate).includes(candidate)) {
      folio.tell('Only a value that is kept under a name, and of a kind that the plate shows, can be put on it.')
      return
    }
    plates.put(plates.plate, line, !isOn(plates.plate, line, candidate.usual))
    desk.show('plates')
  }

  function actionsFor(line: string): readonly MenuAction[] {
    const candidate = candidateOf(line)
    if (!candidate) return []
    const { plate } = plates
    const fits = plates.candidatesFor(plate).includes(candidate)
    const on = isOn(plate, line, candidate.usual)
    const put: MenuAction[] = fits
      ? [
          {
            label: on ? `Take off plate ${plates.number}` : `Put on plate ${plates.number}`,
            icon: mdiChartScatterPlot,
            key: keyText('plate'),
            run: () => toggle(line),
          },
        ]
      : []
    const list: MenuAction[] = [...sweepActions(candidate), ...put]
    if (plate.kind === 'plane' && (plate.chains.includes(line) || candidate.view.uses.length > 1)) {
      const chained = plate.chains.includes(line)
      list.push({
        label: chained ? 'No longer tip to tail' : 'Lay its sum tip to tail',
        icon: mdiVectorPolyline,
        run: () => {
          plates.change(plate, {
            chains: chained ? plate.chains.filter((other) => other !== line) : [...plate.chains, line],
          })
          desk.show('plates')
        },
      })
    }
    return list
  }

  function sweepActions({ line, sweep, view }: Candidate): MenuAction[] {
    if (!sweep) return []
    if (isTransferView(view))
      return [
        { label: 'Frequency response', icon: mdiChartLine, key: keyText('curves'), run: () => curves(line) },
        { label: 'Locus about −1', icon: mdiVectorCurve, key: keyText('locus'), run: () => locus(line) },
      ]
    const complex = view.readout.shape === 'sweep' && view.readout.complex
    return [
      { label: 'Table of its points', icon: mdiTableLarge, run: () => desk.openTable(line) },
      {
        label: complex ? 'Magnitude in dB and angle' : 'Its curve',
        icon: mdiChartLine,
        key: keyText('curves'),
        run: () => curves(line),
      },
      ...(complex ? [{ label: 'Its locus', icon: mdiVectorCurve, key: keyText('locus'), run: () => locus(line) }] : []),
    ]
  }

  return { toggle, locus, curves, actionsFor }
}
