/** What the event of a field says was written, without space around it. */
export function textIn(event: Event): string {
  return event.target instanceof HTMLInputElement ? event.target.value.trim() : ''
}
