/** What the event of a field says was written, without space around it. */
export function textIn(event: Event): string {
  return event.target instanceof HTMLInputElement ? event.target.value.trim() : ''
}

/** Whether the box of the event is ticked now. */
export function tickedIn(event: Event): boolean {
  return event.target instanceof HTMLInputElement && event.target.checked
}
