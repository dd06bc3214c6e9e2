import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
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

export function launch() {
  return chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  })
}
