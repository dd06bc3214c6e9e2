import { mdiContentCopy, mdiTableLarge } from '@mdi/js'
import type { CopyForm } from '#core/kinds/kind'
import { withoutMarks } from '#core/notation/latex'
import type { MenuAction } from '~/components/common/MenuButton.vue'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** What a line came to, on the clipboard, in any of its forms. */
export function useLineCopies() {
  const folio = useFolioStore()
  const results = useResultsStore()

  async function put(text: string): Promise<void> {
    await navigator.clipboard.writeText(text)
    folio.tell(`Copied: ${text.length > 60 ? `${text.slice(0, 60)}…` : text}`)
  }

  async function copy(id: string, form: CopyForm): Promise<void> {
    const text = await results.copyText(id, form)
    if (text !== null) await put(text)
  }

  /** The whole equation as LaTeX: how the line was understood, and what it came to. */
  async function copyEquation(id: string): Promise<void> {
    const value = await results.copyText(id, 'latex')
    const reading = withoutMarks(results.views.get(id)?.reading ?? '')
    if (value !== null && reading !== '') await put(`${reading} = ${value}`)
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

  return { copy, copies }
}
