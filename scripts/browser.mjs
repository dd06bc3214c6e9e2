import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { answers, fail, SERVER } from './lib.mjs'

/** The built application on a port of its own with an empty data folder, and Debian's Chromium to look at it. */

export async function serve(port) {
  const address = `http://127.0.0.1:${port}`
  const data = mkdtempSync(join(tmpdir(), 'ornate-phasor-'))
  const server = spawn(process.execPath, [SERVER], {
    env: { ...process.env, NITRO_HOST: '127.0.0.1', NITRO_PORT: String(port), ORNATE_PHASOR_DATA: data },
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  const stop = () => {
    server.kill()
    rmSync(data, { recursive: true, force: true })
  }
  process.on('exit', stop)
  if (!(await answers(address))) fail('The server did not start.')
  return { address, stop }
}

/** How Debian's Chromium is started, here and in the interface tests. */
const CHROMIUM = JSON.parse(readFileSync(new URL('chromium.json', import.meta.url), 'utf8'))

export function launch() {
  return chromium.launch(CHROMIUM)
}
