import { expect } from '@jest/globals'
import * as fc from 'fast-check'

/**
 * What decides whether a change lands is the same each time; `ORNATE_PHASOR_SEED=0` looks at new random inputs
 * with every run, any other number at those it names.
 */
const named = process.env['ORNATE_PHASOR_SEED']
const seed = named === undefined ? 20261126 : Number(named)
fc.configureGlobal(seed === 0 ? {} : { seed })

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
