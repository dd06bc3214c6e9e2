import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { answers, ensureBuild, ensurePackages, fail, ROOT, say, SERVER } from './lib.mjs'

/** Installs what is missing, builds if needed, serves, prints the address. */
ensurePackages()
ensureBuild()

const host = process.env.HOST ?? '127.0.0.1'
const port = process.env.PORT ?? '4747'
const data = process.env.ORNATE_PHASOR_DATA ?? join(ROOT, 'data')
const child = spawn(process.execPath, [SERVER], {
  cwd: ROOT,
  stdio: ['ignore', 'pipe', 'inherit'],
  env: { ...process.env, NITRO_HOST: host, NITRO_PORT: port, ORNATE_PHASOR_DATA: data, NODE_ENV: 'production' },
})
let stopping = false
for (const signal of ['SIGINT', 'SIGTERM']) {
  process.on(signal, () => {
    stopping = true
    child.kill(signal)
  })
}
child.on('exit', (code) => {
  if (!stopping && code !== 0)
    fail(`The server stopped. Is another program using port ${port}? Choose another with PORT=… npm start.`)
  process.exit(code ?? 0)
})

const address = `http://${host === '0.0.0.0' ? 'localhost' : host}:${port}`
if (await answers(address)) say(`Ornate Phasor is ready: ${address}`)
else say('The server has started but does not answer yet; see its messages above.')
