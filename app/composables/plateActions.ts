import { mdiChartScatterPlot, mdiVectorPolyline } from '@mdi/js'
import type { MenuAction } from '~/components/common/MenuButton.vue'
import { isOn } from '#shared/plate'
import { keyText } from '~/composables/keys'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'

/** What can be done with a line's value on the plates: for its menu and the keys. */
export function usePlateActions() {
  const folio = useFolioStore()
  const plates = usePlatesStore()
  const desk = useDeskStore()

  const candidateOf = (line: string) => plates.candidates.find((c) => c.line === line)

  /** Puts the value on the large plate, or takes it off; a result without a name gets one in the ledger first. */
  function toggle(line: string): void {
    if (folio.editing?.id === line) folio.keep()
    const candidate = candidateOf(line)
    if (!candidate || !folio.writable) {
      folio.notice = 'Only a value that is kept under a name can stand on a plate: press F2 to name it.'
      return
    }
    plates.put(plates.plate, line, !isOn(plates.plate, line, candidate.usual))
    desk.show('plates')
  }

  function actionsFor(line: string): readonly MenuAction[] {
    const candidate = candidateOf(line)
    if (!candidate) return []
    const { plate } = plates
    const on = isOn(plate, line, candidate.usual)
    const list: MenuAction[] = [
      {
        label: on ? `Take off plate ${plates.number}` : `Put on plate ${plates.number}`,
        icon: mdiChartScatterPlot,
        key: keyText('plate'),
        run: () => toggle(line),
      },
    ]
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

  return { toggle, actionsFor }
}
