/** Under what the answers of a line go: they have no lines of their own. */

/** Under what an answer of a line goes; counted from 0. */
export function answerId(line: string, k: number): string {
  return `${line}-${k + 1}`
}

const ANSWER = /^(.+)-(\d+)$/

/** The line that an answer belongs to, and which one it is; `null` of what cannot be an answer. */
export function answerPlace(id: string): { readonly line: string; readonly k: number } | null {
  const found = ANSWER.exec(id)
  return found ? { line: found[1] ?? '', k: Number(found[2]) - 1 } : null
}
