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

  return { checksFor }
}
