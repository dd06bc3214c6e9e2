import { expose } from 'comlink'
import type { Endpoint } from 'comlink'

/** Workers of the page in tests: the same service at the other end of a channel, in this thread. */

interface Started {
  /** True once the page has ended it. */
  ended: boolean
}

/** Ports that are open: a test that leaves them so is never over. */
const ports = new Set<MessagePort>()

export function endWorkers(): void {
  for (const port of ports) port.close()
  ports.clear()
}

/** Puts a worker in the place of the browser's, which runs the service that `make` gives; tells which were started. */
export function workersOf(make: (post: (message: object) => void, script: string) => object): readonly Started[] {
  const started: Started[] = []
  class WorkerInTest extends EventTarget {
    private readonly channel = new MessageChannel()
    private readonly state: Started = { ended: false }

    constructor(script: URL | string) {
      super()
      started.push(this.state)
      const { port1, port2 } = this.channel
      ports.add(port1).add(port2)
      port1.addEventListener('message', (event) => this.pass(event))
      port1.start()
      const service = make((message) => port2.postMessage(message), String(script))
      expose(service, port2 as Endpoint)
      port2.start()
    }

    private pass(event: Event): void {
      if (this.state.ended || !('data' in event)) return
      this.dispatchEvent(Object.assign(new Event('message'), { data: event.data }))
    }

    postMessage(message: unknown): void {
      if (!this.state.ended) this.channel.port1.postMessage(message)
    }

    terminate(): void {
      this.state.ended = true
      this.channel.port1.close()
    }
  }
  Object.assign(globalThis, { Worker: WorkerInTest })
  return started
}
