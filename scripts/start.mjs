import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { portFrom } from '../shared/port.mjs'
import { ensureBuild, ensurePackages, fail, ROOT, SERVER } from './lib.mjs'

/** Installs what is missing, builds if needed, serves, prints the address. */
const port = portFrom(process.env)
if (typeof port === 'string') fail(port)
ensurePackages()
ensureBuild()

const data = process.env.ORNATE_PHASOR_DATA ?? join(ROOT, 'data')
// The server itself says where it is reached, or why it cannot start.
const child = spawn(process.execPath, [SERVER], {
  cwd: ROOT,
  stdio: ['ignore', 'inherit', 'inherit'],
  env: { ...process.env, ORNATE_PHASOR_DATA: data, NODE_ENV: 'production' },
})
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal))
child.on('error', (error) => fail(`The server could not be started: ${error.message}`))
child.on('exit', (code) => process.exit(code ?? 0))
