import { createPinia, setActivePinia } from 'pinia'
import { createApp, h, nextTick, reactive } from 'vue'
import type { App, Component } from 'vue'
import { createVuetify } from 'vuetify'

/** A component in a page of its own, for tests: what a student would see of it, and what it tells. */
export class Mounted {
  /** What it has told, in order: the name of each event with what came with it. */
  readonly told: (readonly unknown[])[] = []
  private readonly props: Record<string, unknown>
  private readonly host = document.createElement('div')
  private readonly app: App

  constructor(component: Component, props: Readonly<Record<string, unknown>>, events: readonly string[] = []) {
    this.props = reactive({ ...props })
    const listeners = Object.fromEntries(
      events.map((name) => [
        `on${name.charAt(0).toUpperCase()}${name.slice(1)}`,
        (...given: unknown[]) => void this.told.push([name, ...given]),
      ]),
    )
    this.app = createApp({ render: () => h(component, { ...this.props, ...listeners }) })
    const pinia = createPinia()
    setActivePinia(pinia)
    this.app.use(pinia)
    this.app.use(createVuetify())
    document.body.append(this.host)
    this.app.mount(this.host)
  }

  /** Everything that can be read, with single spaces. */
  get text(): string {
    return (this.host.textContent ?? '').replace(/\s+/g, ' ').trim()
  }

  all(selector: string): readonly HTMLElement[] {
    return [...this.host.querySelectorAll<HTMLElement>(selector)]
  }

  one(selector: string): HTMLElement {
    const [found] = this.all(selector)
    if (!found) throw new Error(`no ${selector} in ${this.host.innerHTML}`)
    return found
  }

  /** The button that is called so. */
  button(name: string | RegExp): HTMLElement {
    const found = this.all('button').find((b) => {
      const called = b.getAttribute('aria-label') ?? (b.textContent ?? '').trim()
      return typeof name === 'string' ? called === name : name.test(called)
    })
    if (!found) throw new Error(`no button ${name} in ${this.host.innerHTML}`)
    return found
  }

  async click(name: string | RegExp): Promise<void> {
    this.button(name).click()
    await nextTick()
  }

  async press(selector: string, key: string, more: KeyboardEventInit = {}): Promise<KeyboardEvent> {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more })
    this.one(selector).dispatchEvent(event)
    await nextTick()
    return event
  }

  async set(props: Readonly<Record<string, unknown>>): Promise<void> {
    Object.assign(this.props, props)
    await nextTick()
  }

  close(): void {
    this.app.unmount()
    this.host.remove()
  }
}
