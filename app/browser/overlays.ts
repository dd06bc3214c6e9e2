/**
 * What lies over the page stands in one place of the document: a landmark while something is in it, so that it is
 * found, and nothing to stop at while it is empty.
 */
export function markOverlays(): void {
  const place = document.createElement('div')
  // The library puts its overlays where it finds this.
  place.className = 'v-overlay-container'
  document.body.append(place)
  const mark = (): void => {
    const used = place.childElementCount > 0
    if (used === place.hasAttribute('role')) return
    if (used) {
      place.setAttribute('role', 'region')
      place.setAttribute('aria-label', 'Over the page')
    } else {
      place.removeAttribute('role')
      place.removeAttribute('aria-label')
    }
  }
  new MutationObserver(mark).observe(place, { childList: true })
}
