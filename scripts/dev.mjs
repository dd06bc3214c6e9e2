import { spawn } from 'node:child_process'
import { bin, ensurePackages, ROOT } from './lib.mjs'

/** The development server, with the sources watched. */
ensurePackages()
const child = spawn(
  process.execPath,
  [bin('nuxt'), 'dev', '--host', '127.0.0.1', '--port', process.env.PORT ?? '4747', '--no-fork'],
  {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1' },
  },
)
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal))
child.on('exit', (code) => process.exit(code ?? 0))
