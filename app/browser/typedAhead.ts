/**
 * Keys that are pressed between two views: after something was opened, and
 * before the field that it brings has the focus. They wait here for that field.
 */

/** A view that has not come by then will not take them, in milliseconds. */
const PATIENCE = 6_000

let waiting: { text: string; readonly leave: () => void } | null = null

/** From now on keys wait, until a field asks for them. */
export function catchTyping(): void {
  if (waiting || typeof window === 'undefined') return
  window.addEventListener('keydown', take, { capture: true })
  window.addEventListener('pointerdown', end, { capture: true })
  const timer = setTimeout(end, PATIENCE)
  waiting = {
    text: '',
    leave() {
      clearTimeout(timer)
      window.removeEventListener('keydown', take, { capture: true })
      window.removeEventListener('pointerdown', end, { capture: true })
    },
  }
}

/** What was typed meanwhile; lines stand one below the other. Keys no longer wait. */
export function typedAhead(): string {
  const text = waiting?.text ?? ''
  end()
  return text
}

function end(): void {
  waiting?.leave()
  waiting = null
}

function take(event: KeyboardEvent): void {
  if (!waiting || event.isComposing) return
  // Some signs are typed with Ctrl and Alt together.
  const sign = event.key.length === 1 && (event.getModifierState('AltGraph') || !(event.ctrlKey || event.metaKey || event.altKey)) // prettier-ignore
  if (event.key === 'Escape') return end()
  if (sign) waiting.text += event.key
  else if (event.key === 'Enter') waiting.text += '\n'
  else if (event.key === 'Backspace') waiting.text = [...waiting.text].slice(0, -1).join('')
  else return
  event.preventDefault()
  event.stopImmediatePropagation()
}
