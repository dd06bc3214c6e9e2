import type { Directive } from 'vue'

/**
 * Markup of our own making put into an element. Where only its texts differ from what is there, as those of a formula whose
 * figures follow the hand, the texts alone are changed: the browser then neither parses nor styles anything anew.
 */
export const vMarkup: Directive<HTMLElement, string> = {
  mounted: (element, { value }) => show(element, value),
  updated: (element, { value, oldValue }) => {
    if (value !== oldValue) show(element, value)
  },
}

const shown = new WeakMap<HTMLElement, string>()

function show(element: HTMLElement, markup: string): void {
  const before = shown.get(element)
  shown.set(element, markup)
  if (before === undefined || !changeTexts(element, before, markup)) element.innerHTML = markup
}

const TEXTS = />[^<]+(?=<)/g

/** Changes the texts in place; false where anything else has changed, or one has signs that stand for others. */
function changeTexts(element: HTMLElement, before: string, now: string): boolean {
  if (before.replace(TEXTS, '>') !== now.replace(TEXTS, '>')) return false
  const [old, fresh] = [before.match(TEXTS) ?? [], now.match(TEXTS) ?? []]
  if (old.length !== fresh.length || fresh.some((text, k) => text !== old[k] && text.includes('&'))) return false
  const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT)
  for (const [k, text] of fresh.entries()) {
    const node = walker.nextNode()
    if (!node) return false
    if (text !== old[k]) node.nodeValue = text.slice(1)
  }
  return true
}
