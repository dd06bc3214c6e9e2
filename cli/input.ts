import { folioFileSchema } from '../shared/folio'
import type { Conventions } from '#core/format/conventions'

export type Input =
  { readonly lines: readonly string[]; readonly conventions: Partial<Conventions> } | { readonly problem: string }

/** A folio file (JSON) or plain lines; a last line break ends the last line. */
export function readFolioText(text: string): Input {
  const start = text.trimStart()
  if (!start.startsWith('{')) {
    const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/)
    if (lines.at(-1) === '') lines.pop()
    return { lines, conventions: {} }
  }
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch {
    return { problem: 'This is not a folio file: its JSON is damaged.' }
  }
  const folio = folioFileSchema.safeParse(data)
  if (!folio.success) {
    const [issue] = folio.error.issues
    return {
      problem: `This is not a folio file: ${issue ? `${issue.path.join('.')}: ${issue.message}` : 'its form is wrong'}.`,
    }
  }
  return { lines: folio.data.lines.map(asEntry), conventions: folio.data.conventions }
}

/** A note is text: to the evaluator it is a remark. */
function asEntry(line: { readonly source: string; readonly note?: true | undefined }): string {
  return line.note ? `# ${line.source.replace(/\s+/g, ' ')}` : line.source
}
