import { spawn } from 'node:child_process'
import type { ChildProcess } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import type { Browser, BrowserContext } from '@playwright/test'

const LAUNCH = JSON.parse(readFileSync(join(import.meta.dirname, '../../scripts/chromium.json'), 'utf8')) as {
  executablePath: string
  args: string[]
}

/** A browser of its own profile, which can be killed as a crash does it and started again on what it had kept. */
export class KillableBrowser {
  private readonly profile = mkdtempSync(join(tmpdir(), 'ornate-phasor-browser-'))
  private child: ChildProcess | null = null
  private browser: Browser | null = null

  async start(): Promise<BrowserContext> {
    const args = [...LAUNCH.args, '--headless=new', `--user-data-dir=${this.profile}`, '--remote-debugging-port=0', '--window-size=1280,800', 'about:blank'] // prettier-ignore
    // A group of its own: its helpers are killed with it.
    const child = spawn(LAUNCH.executablePath, args, { detached: true, stdio: ['ignore', 'ignore', 'pipe'] })
    this.child = child
    const address = await new Promise<string>((done, failed) => {
      let said = ''
      child.stderr.on('data', (chunk) => {
        said += String(chunk)
        const found = /DevTools listening on (ws:\S+)/.exec(said)
        if (found?.[1]) done(found[1])
      })
      child.once('exit', () => failed(new Error(`the browser ended: ${said}`)))
    })
    this.browser = await chromium.connectOverCDP(address)
    const [context] = this.browser.contexts()
    if (!context) throw new Error('the browser has no window')
    return context
  }

  async kill(): Promise<void> {
    const { child } = this
    this.child = null
    this.browser = null
    if (!child?.pid) return
    const gone = new Promise((done) => child.once('exit', done))
    process.kill(-child.pid, 'SIGKILL')
    await gone
    // Its lock on the profile is a link to a process that is gone.
    await new Promise((done) => setTimeout(done, 200))
  }
}
