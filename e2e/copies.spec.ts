import { execFileSync } from 'node:child_process'
import { cpSync, copyFileSync, existsSync, mkdirSync, mkdtempSync, readFileSync, renameSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { violationsDayAndNight } from './axe'
import { OwnServer } from './ownServer'

/** Copies of the data: by the written steps, and from the shelf. */

/** The commands of the README under a heading, as they stand there. */
function commandsAfter(words: string): string {
  const readme = readFileSync('README.md', 'utf8')
  const at = readme.indexOf(words)
  expect([words, at > 0]).toEqual([words, true])
  return /```sh\n([\s\S]*?)```/.exec(readme.slice(at))?.[1] ?? ''
}

async function save(server: OwnServer, id: string, revision: number): Promise<boolean> {
  const response = await fetch(`${server.address}/api/folios/${id}/operations`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ revision, operations: [{ type: 'rename', title: `Revision ${revision + 1}` }] }),
  })
  return response.ok
}

async function make(server: OwnServer): Promise<string> {
  const response = await fetch(`${server.address}/api/folios`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ title: 'Revision 0', conventions: {}, lines: [{ source: 'a = 1' }] }),
  })
  return ((await response.json()) as { id: string }).id
}

test('by the steps of the README, literally, everything comes back: from a kill, from a running server, from one that ended', async () => {
  const [backUp, restore] = [commandsAfter('**To back up**'), commandsAfter('**To restore**')]
  for (const state of ['killed', 'running', 'ended'] as const) {
    const place = mkdtempSync(join(tmpdir(), 'ornate-phasor-readme-'))
    const shell = (commands: string): void => void execFileSync('sh', ['-e', '-c', commands], { cwd: place })
    const server = await OwnServer.begin({}, join(place, 'data'))
    const id = await make(server)
    let acknowledged = 0
    let going = true
    const typing = (async () => {
      while (going) {
        if (!(await save(server, id, acknowledged).catch(() => false))) break
        acknowledged += 1
      }
    })()
    await new Promise((done) => setTimeout(done, 1_500))
    if (state !== 'running') {
      await server.kill(state === 'killed' ? 'SIGKILL' : 'SIGTERM')
      await typing
      // A kill leaves everything in the log.
      if (state === 'killed') expect(existsSync(join(place, 'data/folios.sqlite-wal'))).toBe(true)
    }
    const before = acknowledged
    shell(backUp)
    going = false
    await typing
    await server.kill()
    // What is there is lost altogether.
    renameSync(join(place, 'data'), join(place, 'lost'))
    mkdirSync(join(place, 'data'))
    shell(restore)
    const again = await OwnServer.begin({}, join(place, 'data'))
    try {
      const folio = (await (await fetch(`${again.address}/api/folios/${id}`)).json()) as { revision: number }
      expect(before).toBeGreaterThan(20)
      expect([state, folio.revision >= before]).toEqual([state, true])
    } finally {
      await again.kill()
    }
  }
})

test('earlier copies stand on the shelf, are looked into, and give folios back beside what is there', async ({
  page,
}) => {
  const server = await OwnServer.begin()
  try {
    const id = await make(server)
    await save(server, id, 0)
    await server.kill('SIGTERM')
    mkdirSync(join(server.data, 'backups'))
    copyFileSync(join(server.data, 'folios.sqlite'), join(server.data, 'backups/daily-2026-11-30T08-15-00-000Z.sqlite'))
    await server.start()
    await save(server, id, 1)
    await page.goto(server.address)
    const opener = page.getByRole('button', { name: /Earlier copies · 1/ })
    await opener.click()
    const section = page.locator('.copies')
    await expect(section).toContainText(/30 Nov.*\d+ folios · \d+ kB/)
    await section.getByRole('button', { name: /What is in the copy/ }).click()
    const row = section.locator('.folios li').filter({ hasText: 'Revision 1' })
    await expect(row).toContainText('1 line · changed here since')
    await expect(section.locator('.folios li').filter({ hasText: 'Lamp circuit' })).toContainText('as it is here')
    await row.getByRole('button', { name: 'Bring Revision 1 back' }).click()
    await expect(section.getByRole('status')).toContainText('“Revision 1 (copy of 2026-11-30)”, beside what was there')
    await expect(page.getByRole('link', { name: 'Open Revision 1 (copy of 2026-11-30)' })).toBeVisible()
    await expect(page.getByRole('link', { name: 'Open Revision 2', exact: true })).toBeVisible()
    await section.getByRole('button', { name: 'Look through it now' }).click()
    await expect(section).toContainText('The data file was whole when it was looked through (today')
    expect(await violationsDayAndNight(page)).toEqual([])
  } finally {
    await server.kill()
  }
})

test('a data file that is moved away while the server runs is said in the page, and once it is back everything is saved', async ({
  page,
}) => {
  const server = await OwnServer.begin()
  try {
    const id = await make(server)
    await page.goto(`${server.address}/folio/${id}`)
    await expect(page.locator('.status')).toHaveText(/^saved/)
    const file = join(server.data, 'folios.sqlite')
    renameSync(file, `${file}.elsewhere`)
    await page.locator('[data-line="1"] .opener').focus()
    await page.keyboard.press('Enter')
    await page.keyboard.type(' + 41')
    await page.keyboard.press('Enter')
    await expect(page.locator('.status')).toContainText('was moved away or removed while the server ran')
    await expect(page.locator('.status')).toContainText('kept in this browser')
    expect(existsSync(file)).toBe(false)
    const shelf = await page.context().newPage()
    await shelf.goto(server.address)
    await expect(shelf.getByRole('alert').first()).toContainText('was moved away')
    renameSync(`${file}.elsewhere`, file)
    await expect(page.locator('.status')).toHaveText(/^saved/, { timeout: 40_000 })
    const folio = (await (await fetch(`${server.address}/api/folios/${id}`)).json()) as { lines: { source: string }[] }
    expect(folio.lines[0]?.source).toBe('a = 1 + 41')
  } finally {
    await server.kill()
  }
})

test('a data folder that lost its file does not open as a fresh shelf, and says which copy is whole', async () => {
  const server = await OwnServer.begin()
  await make(server)
  await server.kill('SIGTERM')
  const copy = join(server.data, 'backups/daily-2026-11-30T08-15-00-000Z.sqlite')
  mkdirSync(join(server.data, 'backups'))
  renameSync(join(server.data, 'folios.sqlite'), copy)
  expect(await server.start()).toBe(1)
  expect(server.said).toContain('this folder had folios')
  expect(server.said).toContain(copy)
  cpSync(copy, join(server.data, 'folios.sqlite'))
  expect(await server.start()).toBeNull()
  await server.kill()
})
