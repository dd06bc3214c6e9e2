import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { Agent, request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { answers, SERVER } from '../scripts/lib.mjs'

/**
 * What keeping costs: the server's processor time of a save, and how long saves
 * take while many pages type at once. Only this machine is asked.
 */

const PORT = 4795
const ADDRESS = `http://127.0.0.1:${PORT}`
const PAGES = Number(process.env.ORNATE_PHASOR_PAGES ?? 200)
/** A page that is typed in sends something so often, in milliseconds; and for how long all of it goes on. */
const EVERY = 1_500
const LASTS = 20_000
const TICKS = 100

const agent = new Agent({ keepAlive: true, maxSockets: PAGES })

function ask(method, path, body) {
  const text = body === undefined ? '' : JSON.stringify(body)
  return new Promise((done, failed) => {
    const headers = text === '' ? {} : { 'content-type': 'application/json', 'content-length': Buffer.byteLength(text) }
    const call = request({ host: '127.0.0.1', port: PORT, path, method, headers, agent }, (response) => {
      let answer = ''
      response.setEncoding('utf8')
      response.on('data', (chunk) => (answer += chunk))
      response.on('end', () => done({ status: response.statusCode, body: JSON.parse(answer) }))
    })
    call.on('error', failed)
    call.end(text)
  })
}

/** Processor time of a process so far, in milliseconds. */
function processor(pid) {
  const [user, system] = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ').slice(11, 13)
  return ((Number(user) + Number(system)) * 1000) / TICKS
}

class Typist {
  revision = 0

  static async begin(k) {
    const lines = Array.from({ length: 40 }, (_, n) => ({ source: `Z_${n} = ${n} + ${k}j` }))
    const { body } = await ask('POST', '/api/folios', { title: `Folio ${k}`, conventions: {}, lines })
    return Object.assign(new Typist(), { id: body.id, line: body.lines[k % 40].id })
  }

  async save(n) {
    const operations = [{ type: 'edit', id: this.line, source: `Z = ${n} + 4j`, was: '' }]
    const key = `key-${n}-${this.revision}-${Math.random().toString(36).slice(2, 10)}`
    const began = performance.now()
    const { status, body } = await ask('POST', `/api/folios/${this.id}/operations`, {
      revision: this.revision,
      key,
      operations,
    })
    if (status !== 200) throw new Error(`a save was answered with ${status}`)
    this.revision = body.revision
    return performance.now() - began
  }
}

const quantile = (sorted, q) => sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))]
const pause = (time) => new Promise((done) => setTimeout(done, time))

export async function keeping(say) {
  const data = mkdtempSync(join(tmpdir(), 'ornate-phasor-keeping-'))
  const env = { ...process.env, NITRO_HOST: '127.0.0.1', NITRO_PORT: String(PORT), ORNATE_PHASOR_DATA: data }
  const server = spawn(process.execPath, [SERVER], { env, stdio: ['ignore', 'ignore', 'inherit'] })
  try {
    if (!(await answers(ADDRESS))) throw new Error('The server did not start.')
    const one = await Typist.begin(0)
    for (let n = 0; n < 200; n += 1) await one.save(n)
    const before = processor(server.pid)
    const COUNT = 1_000
    for (let n = 0; n < COUNT; n += 1) await one.save(n)
    say(`one save, of the server’s processor: ${((processor(server.pid) - before) / COUNT).toFixed(2)} ms`)

    const typists = []
    for (let k = 0; k < PAGES; k += 1) typists.push(await Typist.begin(k))
    const times = []
    const until = Date.now() + LASTS
    const idle = processor(server.pid)
    await Promise.all(
      typists.map(async (typist, k) => {
        await pause((EVERY * k) / PAGES)
        for (let n = 0; Date.now() < until; n += 1) {
          const took = await typist.save(n)
          times.push(took)
          await pause(Math.max(0, EVERY - took))
        }
      }),
    )
    times.sort((a, b) => a - b)
    const load = (processor(server.pid) - idle) / LASTS
    say(
      `${PAGES} pages typing at once: ${Math.round((1000 * times.length) / LASTS)} saves a second; half of them within ${quantile(times, 0.5).toFixed(0)} ms, 95 % within ${quantile(times, 0.95).toFixed(0)} ms, the slowest ${times.at(-1).toFixed(0)} ms; processor ${(100 * load).toFixed(0)} %`,
    )
  } finally {
    server.kill()
    agent.destroy()
    rmSync(data, { recursive: true, force: true })
  }
}

if (process.argv[1] === import.meta.filename) await keeping((line) => process.stdout.write(`${line}\n`))
