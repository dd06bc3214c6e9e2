import { mdiCheckAll } from '@mdi/js'
import { freeName } from '#core/notation/rename'
import type { MenuAction } from '~/components/common/MenuButton.vue'
import { keptNames } from '~/lines/nameIndex'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** Lines that show of a matrix that its inverse, its solution, its eigenpairs are what they should be. */
export function useMatrixChecks() {
  const folio = useFolioStore()
  const results = useResultsStore()

  /** The right-hand side that stands next to a matrix: the nearest kept vector of as many entries, the one below first. */
  function sideOf(id: string, rows: number): { readonly name: string; readonly index: number } | null {
    const at = folio.indexOf(id)
    const sides = folio.lines.flatMap((line, index) => {
      const view = results.views.get(line.id)
      const shape = view?.readout
      const fits =
        (shape?.shape === 'list' && shape.count === rows) ||
        (shape?.shape === 'grid' && shape.cols === 1 && shape.rows === rows)
      return view?.name && view.problem === null && index !== at && fits ? [{ name: view.name, index }] : []
    })
    const away = ({ index }: { readonly index: number }): number => (index > at ? index - at : at - index + 0.5)
    return sides.toSorted((a, b) => away(a) - away(b))[0] ?? null
  }

  /** Solving with the right-hand side that is there; without one, with a unit vector to begin with. */
  function solving(id: string, kept: string, rows: number, free: (stem: string) => string): void {
    const side = sideOf(id, rows)
    const x = free('x')
    const below = side && side.index > folio.indexOf(id) ? folio.lines[side.index]?.id : id
    const b = side?.name ?? free('b')
    folio.makeCurrent(below ?? id)
    folio.insertBelow([
      ...(side ? [] : [`${b} = [${Array.from({ length: rows }, (_, k) => (k === 0 ? '1' : '0')).join(', ')}]`]),
      `${x} = solve(${kept}, ${b})`,
      `norm(${kept}*${x} - ${b})  # residual`,
    ])
  }

  /** Ordinary lines that show that a matrix is what it should be. */
  function checksFor(id: string): MenuAction[] {
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
    const inverse = free(`${kept}_inv`)
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
        run: () => solving(id, kept, shape.rows, free),
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

  return { checksFor }
}
