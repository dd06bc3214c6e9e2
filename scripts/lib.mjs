import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { basename, dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

/** What `npm start`, `npm test` and the others share: installing, building, running. */

export const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '..')
export const SERVER = join(ROOT, '.output/server/index.mjs')

export function say(text) {
  process.stdout.write(`${text}\n`)
}

export function fail(text) {
  process.stderr.write(`${text}\n`)
  process.exit(1)
}

/** Runs a command in the project; its output is shown. Returns the exit status. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...options.env } })
  if (result.error) return 1
  return result.status ?? 1
}

/** Runs a command, showing and keeping what it prints. */
export function runAndKeep(command, args, options = {}) {
  return new Promise((done) => {
    const child = spawn(command, args, {
      cwd: ROOT,
      env: { ...process.env, ...options.env },
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    let text = ''
    const take = (stream) => (chunk) => {
      text += chunk
      stream.write(chunk)
    }
    child.stdout.on('data', take(process.stdout))
    child.stderr.on('data', take(process.stderr))
    child.on('error', () => done({ status: 1, text }))
    child.on('close', (status) => done({ status: status ?? 1, text }))
  })
}

const bin = (name) => join(ROOT, 'node_modules/.bin', name)
export { bin }

function digest(files) {
  const hash = createHash('sha256')
  for (const file of files) hash.update(file).update(readFileSync(join(ROOT, file)))
  return hash.digest('hex')
}

/** What the scripts keep between runs. */
export const CACHE = join(ROOT, 'node_modules/.cache/ornate-phasor')

function stampIs(name, value) {
  const file = join(CACHE, name)
  return existsSync(file) && readFileSync(file, 'utf8') === value
}

function setStamp(name, value) {
  mkdirSync(CACHE, { recursive: true })
  writeFileSync(join(CACHE, name), value)
}

/** What is installed: the locked packages, and which of them may run scripts. */
function packagesWanted() {
  const { allowScripts } = JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8'))
  return createHash('sha256')
    .update(digest(['package-lock.json']))
    .update(JSON.stringify(allowScripts))
    .digest('hex')
}

/** Installs the packages where they are missing or other ones are wanted. */
export function ensurePackages() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19))
    fail(`Node 20.19 or newer is needed; this is ${process.versions.node}.`)
  const wanted = packagesWanted()
  if (stampIs('installed', wanted) && existsSync(bin('nuxt'))) return
  say('Installing the packages (the first time takes some minutes: the database driver is compiled)…')
  const status = run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'])
  if (status !== 0) fail('The packages could not be installed: see the messages above.')
  setStamp('installed', wanted)
}

const SOURCES = ['app', 'core', 'server', 'shared', 'public', 'nuxt.config.ts', 'package-lock.json']

function* filesUnder(path) {
  const full = join(ROOT, path)
  if (!existsSync(full)) return
  if (statSync(full).isFile()) {
    yield path
    return
  }
  for (const entry of readdirSync(full).sort()) yield* filesUnder(join(path, entry))
}

/** Builds the application where its sources have changed since the last build. */
export function ensureBuild() {
  const files = SOURCES.flatMap((path) => [...filesUnder(path)]).filter((file) => !file.endsWith('.test.ts'))
  const wanted = digest(files)
  if (stampIs('built', wanted) && existsSync(SERVER)) return
  say('Building the application…')
  const status = run(process.execPath, [bin('nuxt'), 'build', '--logLevel', 'silent'], {
    env: { NUXT_TELEMETRY_DISABLED: '1' },
  })
  if (status !== 0 || !existsSync(SERVER)) fail('The application could not be built: see the messages above.')
  setStamp('built', wanted)
}

const CHROMIUM = '/usr/bin/chromium'
/** The same without windows: most interface tests take two thirds of the time in it, and go without where it cannot be had. */
const { headless: HEADLESS } = JSON.parse(readFileSync(join(ROOT, 'scripts/browsers.json'), 'utf8'))

function installHeadless() {
  say('Installing the Chromium without windows, for quicker interface tests…')
  const patience = ['-o', 'Acquire::http::Timeout=15', '-o', 'Acquire::Retries=0']
  const args = ['install', '-y', '-qq', '--no-install-recommends', '--no-remove', ...patience, basename(HEADLESS)]
  if (run('apt-get', args, { env: { DEBIAN_FRONTEND: 'noninteractive' } }) !== 0) say('It cannot be had; the tests go on in the other.') // prettier-ignore
}

/** Debian's Chromium for the interface tests: installed where this may be done, else a clear sentence. */
export function ensureChromium() {
  const root = typeof process.getuid === 'function' && process.getuid() === 0
  const mayInstall = root && existsSync('/usr/bin/apt-get')
  if (existsSync(CHROMIUM)) {
    if (mayInstall && !existsSync(HEADLESS)) installHeadless()
    return
  }
  if (!mayInstall) {
    fail(
      `The interface tests need Chromium at ${CHROMIUM}. Install it (on Debian: apt-get install chromium) and run this again.`,
    )
  }
  say('Installing Chromium for the interface tests…')
  const quiet = { env: { DEBIAN_FRONTEND: 'noninteractive' } }
  run('apt-get', ['update', '-qq'], quiet)
  const status = run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], quiet)
  if (status !== 0 || !existsSync(CHROMIUM)) fail('Chromium could not be installed; the interface tests need it.')
}

/** Waits until the server answers; false after a while. */
export async function answers(address, seconds = 30) {
  for (let k = 0; k < seconds * 10; k += 1) {
    try {
      const response = await fetch(`${address}/api/version`)
      if (response.ok) return true
    } catch {
      // Not yet.
    }
    await new Promise((done) => setTimeout(done, 100))
  }
  return false
}
