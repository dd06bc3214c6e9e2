import type { JSHandle, Page } from '@playwright/test'

/** A store of the page by its name, as the page itself has it; nothing where the page has none of it yet. */
export function storeOf<S>(page: Page, name: string): Promise<JSHandle<S | undefined>> {
  return page.evaluateHandle((of) => {
    interface Mounted extends Element {
      readonly __vue_app__?: {
        readonly config: { readonly globalProperties: { readonly $pinia: { readonly _s: Map<string, S> } } }
      }
    }
    const mounted: Mounted | null = document.querySelector('#__nuxt')
    return mounted?.__vue_app__?.config.globalProperties.$pinia._s.get(of)
  }, name)
}
