import { expect } from '@jest/globals'

/**
 * Small exact numbers make their exact parts when these are first asked for. Whether somebody asked says
 * nothing of the number: both are asked before they are compared.
 */
expect.addEqualityTesters([
  (a: unknown, b: unknown): boolean | undefined => {
    exactOf(a)
    exactOf(b)
    return undefined
  },
])

function exactOf(value: unknown): unknown {
  return typeof value === 'object' && value !== null && 'kind' in value && 'exact' in value ? value.exact : null
}

// What the components' library asks of a browser and jsdom lacks.
if ('document' in globalThis) {
  const quiet = { observe: () => undefined, unobserve: () => undefined, disconnect: () => undefined }
  Object.assign(globalThis, {
    CSS: { supports: () => false },
    ResizeObserver: function () {
      return quiet
    },
    IntersectionObserver: function () {
      return quiet
    },
    matchMedia: () => ({ matches: false, addEventListener: () => undefined, removeEventListener: () => undefined }),
  })
}
