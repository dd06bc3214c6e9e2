import { existsSync, mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { defineConfig } from '@playwright/test'
import type { LaunchOptions } from '@playwright/test'
import { PORT } from './e2e/setting'

/** The interface tests: the built application, driven in Debian's Chromium. */
const data = process.env.ORNATE_PHASOR_TEST_DATA ?? mkdtempSync(join(tmpdir(), 'ornate-phasor-e2e-'))
process.env.ORNATE_PHASOR_TEST_DATA = data

function readJson<T>(name: string): T {
  return JSON.parse(readFileSync(join(import.meta.dirname, 'scripts', name), 'utf8')) as T
}

/** The same Chromium without windows, where it is installed: it draws for nobody, and takes two thirds of the time. */
const { headless } = readJson<{ headless: string }>('browsers.json')

/** Started as the scripts start it. */
const launchOptions = {
  ...readJson<LaunchOptions>('chromium.json'),
  ...(existsSync(headless) ? { executablePath: headless } : {}),
}

export default defineConfig({
  testDir: 'e2e',
  testMatch: '**/*.spec.ts',
  fullyParallel: true,
  workers: 2,
  // A test that fails once and passes then is told by name at the end: it is to be looked into, not passed over.
  retries: 1,
  // Generous: a busy machine is slow, not wrong.
  timeout: 90_000,
  expect: { timeout: 15_000 },
  forbidOnly: true,
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    colorScheme: 'light',
    permissions: ['clipboard-read', 'clipboard-write'],
    launchOptions,
    screenshot: 'only-on-failure',
    trace: 'on-first-retry',
  },
  webServer: {
    command: 'node .output/server/index.mjs',
    url: `http://127.0.0.1:${PORT}/api/version`,
    reuseExistingServer: false,
    timeout: 30_000,
    env: { NITRO_HOST: '127.0.0.1', NITRO_PORT: String(PORT), ORNATE_PHASOR_DATA: data },
  },
})
