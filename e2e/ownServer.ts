import { spawn } from 'node:child_process'
import type { ChildProcess } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { createServer } from 'node:net'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** A port that nothing uses now. */
export function freePort(): Promise<number> {
  return new Promise((done, failed) => {
    const probe = createServer()
    probe.once('error', failed)
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo
      probe.close(() => done(port))
    })
  })
}

/** A server of a test's own, which can be killed and started again on the same data. */
export class OwnServer {
  private child: ChildProcess | null = null
  /** What it has said. */
  said = ''

  private constructor(
    readonly port: number,
    readonly data: string,
    private readonly env: Readonly<Record<string, string>>,
  ) {}

  static async begin(env: Readonly<Record<string, string>> = {}, data?: string): Promise<OwnServer> {
    const server = await OwnServer.prepare(env, data)
    await server.start()
    return server
  }

  static async prepare(env: Readonly<Record<string, string>> = {}, data?: string): Promise<OwnServer> {
    return new OwnServer(await freePort(), data ?? mkdtempSync(join(tmpdir(), 'ornate-phasor-own-')), env)
  }

  get address(): string {
    return `http://127.0.0.1:${this.port}`
  }

  /**
   * Starts it; gives back its exit status where it ends by itself before it answers. With a limit no
   * file of it grows beyond so many kibibytes, as on a disk that is full.
   */
  async start(limit?: number): Promise<number | null> {
    const rest = Object.fromEntries(
      Object.entries(process.env).filter(([name]) => name !== 'NITRO_HOST' && name !== 'HOST'),
    )
    const command = [process.execPath, '.output/server/index.mjs']
    const limited = ['bash', '-c', `ulimit -f ${limit ?? 0}; exec "$0" "$@"`, ...command]
    const [program = '', ...args] = limit === undefined ? command : limited
    const child = spawn(program, args, {
      env: {
        ...rest,
        PORT: String(this.port),
        NITRO_PORT: String(this.port),
        ORNATE_PHASOR_DATA: this.data,
        ...this.env,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    this.child = child
    this.said = ''
    child.stdout.on('data', (chunk) => (this.said += String(chunk)))
    child.stderr.on('data', (chunk) => (this.said += String(chunk)))
    const ended = new Promise<number>((done) => child.once('exit', (code) => done(code ?? 1)))
    for (let k = 0; k < 300; k += 1) {
      const early = await Promise.race([ended, new Promise<null>((done) => setTimeout(() => done(null), 50))])
      if (early !== null) return early
      if (this.said.includes('is ready')) return null
    }
    throw new Error(`The server did not start: ${this.said}`)
  }

  async kill(signal: NodeJS.Signals = 'SIGKILL'): Promise<void> {
    const child = this.child
    this.child = null
    if (!child || child.exitCode !== null) return
    const gone = new Promise((done) => child.once('exit', done))
    child.kill(signal)
    await gone
  }
}
