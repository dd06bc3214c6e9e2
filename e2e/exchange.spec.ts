import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Download, Locator, Page } from '@playwright/test'
import { violations } from './axe'
import { expect, pick, test } from './folio'

const SAMPLES = join(import.meta.dirname, '../public/samples')

/** Opens a file by the button of the exchange leaf. */
async function choose(page: Page, file: string | { name: string; mimeType: string; buffer: Buffer }): Promise<void> {
  if ((await page.getByRole('region', { name: 'Exchange' }).count()) === 0) await page.keyboard.press('Control+F9')
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Open a file' }).click(),
  ])
  await chooser.setFiles(file)
}

/** Drops a file on an element, as a hand does. */
async function drop(target: Locator, name: string, content: string): Promise<void> {
  const data = await target.page().evaluateHandle(
    ({ fileName, text }) => {
      const transfer = new DataTransfer()
      transfer.items.add(new File([text], fileName))
      return transfer
    },
    { fileName: name, text: content },
  )
  await target.dispatchEvent('dragover', { dataTransfer: data })
  await target.dispatchEvent('drop', { dataTransfer: data })
}

async function textOf(download: Download): Promise<string> {
  return readFileSync(await download.path(), 'utf8')
}

const text = (name: string, content: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(content) })

test('a measured file comes in with two clicks: seen first, then enclosed, drawn, followed and undone in one step', async ({
  folio,
  page,
}) => {
  await folio.open(['R = 5'])
  await choose(page, join(SAMPLES, 'shore-cable.csv'))
  const pane = page.getByRole('region', { name: 'A file for this folio' })
  await expect(pane).toContainText('49 rows: Frequency in Hz, Z in Ω; all along Frequency.')
  await expect(pane).toContainText('2 lines before the table were passed over.')
  await expect(pane.getByRole('row').nth(2)).toContainText('0,64332')
  await expect(folio.rows).toHaveCount(1)
  await pane.getByRole('button', { name: 'Keep with the folio' }).click()
  await expect(folio.rows).toHaveCount(3)
  await expect(folio.row(2)).toContainText('.Frequency .Z')
  await expect(folio.row(3)).toContainText('49 points along Frequency')
  await expect(page.getByText('Plate 2')).toBeVisible()
  await expect(page.getByRole('application', { name: /Curves over Frequency/ }).or(page.getByLabel(/Curves over Frequency/)).first()).toBeVisible() // prettier-ignore
  await folio.saved()
  // A reload has it all again, from the server.
  await page.reload()
  await expect(folio.row(3)).toContainText('49 points along Frequency')
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(folio.rows).toHaveCount(1)
  await page.getByRole('button', { name: 'Redo' }).click()
  await expect(folio.row(3)).toContainText('49 points along Frequency')
})

test('a file is dropped on the line below which it comes to stand; newer numbers of its name are followed', async ({
  folio,
  page,
}) => {
  await folio.open(['a = 1', 'b = 2'])
  await drop(folio.row(1), 'lamp.s1p', '# kHz Z RI R 1\n1 3 4\n2 6 8\n')
  const pane = page.getByRole('region', { name: 'A file for this folio' })
  await expect(pane).toContainText('2 rows: f in Hz, Z in Ω')
  await pane.getByLabel('and draw it').uncheck()
  await pane.getByRole('button', { name: 'Keep with the folio' }).click()
  await expect(folio.row(2)).toContainText('lamp=enclosure')
  await folio.edit(3)
  await page.keyboard.press('Control+A')
  await page.keyboard.type('abs(lamp.Z[2])')
  await folio.expectValue(3, '10')
  await folio.leave()
  await drop(folio.row(1), 'lamp.s1p', '# kHz Z RI R 1\n1 3 4\n2 0 7\n')
  await pane.getByRole('button', { name: 'Take in the new numbers' }).click()
  await folio.expectValue(3, '7')
  await page.getByRole('button', { name: 'Undo' }).click()
  await folio.expectValue(3, '10')
})

test('a guess is changed by a choice, and what is shown follows', async ({ folio, page }) => {
  await folio.open([''])
  await choose(page, text('run.csv', 'a;b;c\n1;1,5;90\n2;2,5;0\n3;3,5;0\n'))
  const pane = page.getByRole('region', { name: 'A file for this folio' })
  await expect(pane).toContainText('3 rows: a, b, c; all along a.')
  await page
    .locator('.v-input')
    .filter({ has: page.getByLabel('Holds') })
    .nth(1)
    .click()
  await page.getByRole('option', { name: 'magnitude, next is angle in °' }).click()
  await expect(pane).toContainText('3 rows: a, b; all along a.')
  await pane.getByLabel('and draw it').uncheck()
  await pane.getByRole('button', { name: 'Keep with the folio' }).click()
  // The empty line has made way for it.
  await expect(folio.rows).toHaveCount(1)
  await folio.row(1).locator('.opener').focus()
  await page.keyboard.press('Control+Enter')
  await page.keyboard.type('run.b[1]')
  await folio.expectValue(2, '0 + 1.5j | 1.5 ∠ 90°')
})

test('a matrix is enclosed, or written into a line; a pasted table is shown first', async ({ folio, page }) => {
  await folio.open([''])
  await choose(page, text('mast.mtx', '%%MatrixMarket matrix array real general\n2 2\n1\n3\n2\n4\n'))
  const pane = page.getByRole('region', { name: 'A file for this folio' })
  await expect(pane).toContainText('A real matrix of 2 × 2.')
  await pane.getByRole('button', { name: 'Write into a line' }).click()
  await expect(folio.row(1)).toContainText('mast')
  await folio.edit(1)
  await page.evaluate(() => {
    const data = new DataTransfer()
    data.setData('text/plain', '1\t2\n3\t4\n0\t6\n')
    document.activeElement?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true })) // prettier-ignore
  })
  await expect(pane).toContainText('A real matrix of 3 × 2.')
  await pane.getByRole('button', { name: 'Keep with the folio' }).click()
  await expect(page.locator('.row', { hasText: 'pasted' })).toBeVisible()
})

test('hostile files get a sentence, nothing is taken in, and the page lives on', async ({ folio, page }) => {
  await folio.open(['a = 1'])
  const pane = page.getByRole('region', { name: 'A file for this folio' })
  for (const [file, sentence] of [
    [text('x.mtx', '%%MatrixMarket matrix array real general\n2 2\n1\n1e999\n'), 'Line 4, column 1: “1e999” is too large'],
    [text('x.s2p', '# Hz S RI\n1 1 0 1 0 1 0 1 0\n2 1\n'), 'the file is cut off'],
    [text('x.json', `${'{"a":'.repeat(10_000)}1${'}'.repeat(10_000)}`), 'This is a folio'],
    [{ name: 'x.bin', mimeType: 'x/y', buffer: Buffer.from(Array.from({ length: 400 }, (_, k) => k % 256)) }, 'no text file'],
    [text('x.csv', 'words\nand words\n'), 'No table of numbers was found'],
  ] as const) {
    await choose(page, file)
    await expect(pane).toContainText(sentence)
    if (sentence === 'This is a folio') {
      await pane.getByRole('button', { name: 'Put its lines in' }).click()
      await expect(pane.getByRole('alert')).toContainText('This is not a folio file')
    }
    await expect(folio.rows).toHaveCount(1)
    await page.getByRole('button', { name: 'Exchange', exact: true }).click()
  } // prettier-ignore
  await folio.rewrite(1, 'a = 2')
  await folio.expectValue(1, '2')
})

test('a folio leaves as a file and comes back the same, its numbers with it; on the shelf it stands beside', async ({
  folio,
  page,
}) => {
  const id = await folio.open(['a = 2 + 3j'])
  await choose(page, join(SAMPLES, 'shore-cable.s1p'))
  const pane = page.getByRole('region', { name: 'A file for this folio' })
  await pane.getByRole('button', { name: 'Keep with the folio' }).click()
  await expect(folio.row(3)).toContainText('49 points')
  await folio.saved()
  await page.getByRole('button', { name: 'Exchange', exact: true }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Folio file' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('Test folio.folio.zip')
  const path = test.info().outputPath('Test folio.folio.zip')
  await download.saveAs(path)
  await folio.rewrite(1, 'a = 7')
  await folio.saved()

  await page.goto('/')
  const bring = async (): Promise<void> => {
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('button', { name: 'Bring in files' }).click(),
    ])
    await chooser.setFiles(path)
  }
  await bring()
  const twins = page.getByRole('dialog', { name: 'Folios that are here already' })
  await expect(twins).toContainText('“Test folio” is on the shelf already')
  await twins.getByRole('button', { name: 'Compare' }).click()
  await page.waitForURL(`/folio/${id}`)
  const back = page.getByRole('region', { name: 'A folio that came back' })
  await expect(back).toContainText('One line differs')
  await expect(back).toContainText('theirs a = 2 + 3j')
  await back.getByRole('radio', { name: 'Both' }).check()
  await back.getByRole('button', { name: 'Take what is chosen' }).click()
  await folio.expectValue(1, '7')
  await folio.expectValue(2, '2 + 3j | 3.6056 ∠ 56.31°')
  await folio.saved()

  await page.goto('/')
  await bring()
  await twins.getByRole('button', { name: 'Put them beside' }).click()
  await expect(page.getByText('One folio came in.')).toBeAttached()
  const made = (await (await page.request.get('/api/folios?sort=created')).json()) as { folios: { id: string }[] }
  await page.goto(`/folio/${made.folios[0]?.id}`)
  await expect(folio.row(3)).toContainText('49 points')
  await folio.expectValue(1, '2 + 3j | 3.6056 ∠ 56.31°')
})

test('numbers leave in the formats of the table', async ({ folio, page }) => {
  await folio.open(['f = 1 to 3', 'Z = f + 2j', 'A = [[1, 2], [3, 4]]', 'k = 5'])
  await folio.expectValue(4, '5')
  await page.keyboard.press('Control+F9')
  const pane = page.getByRole('region', { name: 'Exchange' })
  const save = async (what: string, as: string): Promise<string> => {
    await pick(page.getByRole('combobox', { name: 'What' }), what)
    await pick(page.getByRole('combobox', { name: 'As' }), as)
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      pane.getByRole('button', { name: 'Save the numbers' }).click(),
    ])
    return textOf(download)
  }
  expect(await save('Z (line 2)', 'CSV, with commas')).toBe('f,re(Z),im(Z)\r\n1,1,2\r\n2,2,2\r\n3,3,2\r\n')
  expect(await save('A (line 3)', 'Matrix Market')).toContain('2 2\n1\n3\n2\n4\n')
  expect(await save('Z (line 2)', 'Touchstone')).toContain('# Hz Z RI R 1\n1 1 2\n2 2 2\n3 3 2\n')
  expect(await save('All kept numbers', 'CSV, with commas')).toBe('name,re,im\r\nk,5,0\r\n')
  await pick(page.getByRole('combobox', { name: 'As' }), 'Matrix Market')
  await pane.getByRole('button', { name: 'Save the numbers' }).click()
  await expect(pane.getByRole('alert')).toContainText('There is nothing here that mtx can hold')
})

test('selected lines are copied as text that comes back, as Markdown and as HTML', async ({ folio, page }) => {
  await folio.open(['a = 3 + 4j', '|a|'])
  await folio.expectValue(2, '5')
  await folio.row(1).locator('.opener').focus()
  await page.keyboard.press('Shift+ArrowDown')
  const copied = await page.evaluate(() => {
    const data = new DataTransfer()
    document.dispatchEvent(new ClipboardEvent('copy', { clipboardData: data, bubbles: true, cancelable: true }))
    return [data.getData('text/plain'), data.getData('text/markdown'), data.getData('text/html')]
  })
  expect(copied[0]).toBe('a = 3 + 4j\n|a|')
  expect(copied[1]).toContain('**(1)**')
  expect(copied[2]).toContain('<td>a = 3 + 4j</td><td>3 + 4j = 5 ∠ 53.13°</td>')
  await page.evaluate((plain) => {
    const data = new DataTransfer()
    data.setData('text/plain', plain ?? '')
    document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
  }, copied[0])
  await expect(folio.rows).toHaveCount(4)
})

test('the sheet: an answer is boxed and listed; the pages of the PDF are those of the preview', async ({
  folio,
  page,
}) => {
  const lines = Array.from({ length: 60 }, (_, k) => (k % 7 === 3 ? `# Part ${k}` : `z_${k} = ${k} + ${k + 1}j`))
  await folio.open([...lines, '1 +', 'A = [[1/3, 2j], [3, 4]]'])
  await folio.row(1).hover()
  await folio.row(1).getByRole('button', { name: 'Actions for line 1' }).click()
  await page.getByRole('menuitem', { name: 'Mark as an answer' }).click()
  await page
    .getByRole('dialog', { name: 'Mark as an answer' })
    .getByRole('button', { name: 'Mark', exact: true })
    .click()
  await expect(folio.row(1).locator('.badge', { hasText: '1 a' })).toBeVisible()
  await page.keyboard.press('Control+F9')
  await page.getByRole('button', { name: 'The sheet' }).click()
  const sheet = page.getByRole('region', { name: 'The sheet' })
  await sheet.getByLabel('Course').fill('Circuits 2')
  await sheet.getByLabel('Names and student numbers').fill('A. Keeper 12')
  await sheet.getByLabel('Names and student numbers').blur()
  const pages = sheet.getByRole('article')
  await expect(pages.first()).toContainText('Circuits 2')
  await expect(pages.first()).toContainText('Answers')
  await expect(pages.first()).toContainText('A. Keeper 12')
  const count = await pages.count()
  expect(count).toBeGreaterThan(1)
  await expect(pages.last()).toContainText(`page ${count} of ${count}`)
  // No row stands across the end of its page, and every line is there once.
  const found = await pages.evaluateAll((all) =>
    all.map((one) => {
      const box = one.getBoundingClientRect()
      const inside = [...one.querySelectorAll('.cell')].every((c) => c.getBoundingClientRect().bottom <= box.bottom)
      return { inside, numbers: [...one.querySelectorAll('.entry .number')].map((n) => n.textContent ?? '') }
    }),
  )
  expect(found.every((one) => one.inside)).toBe(true)
  expect(found.flatMap((one) => one.numbers)).toEqual(Array.from({ length: 62 }, (_, k) => `(${k + 1})`))
  await expect(pages.last()).toContainText('Error: Something is still missing')
  expect(await violations(page)).toEqual([])
  const pdf = await page.pdf({ preferCSSPageSize: true })
  const content = pdf.toString('latin1')
  expect(content.match(/\/Type\s*\/Page\b/g)).toHaveLength(count)
  // Plates are drawn, not rasters.
  expect(content).not.toContain('/Subtype /Image')
  writeFileSync(test.info().outputPath('sheet.pdf'), pdf)
})

test('notes of any length are divided among the pages at their paragraphs, and nothing is cut off', async ({
  page,
  folio,
}) => {
  const words = (count: number): string => 'Words of a note that go on. '.repeat(count)
  const lines = Array.from({ length: 14 }, (_, k) => [
    { source: `## Part ${k}\n${words(3 * k)}\n\n- a\n- b\n\n${words(20)}`, note: true },
    { source: `z_${k} = ${k} + 1j` },
  ]).flat()
  const made = await page.request.post('/api/folios', { data: { title: 'Notes', conventions: {}, lines } })
  await page.goto(`/folio/${((await made.json()) as { id: string }).id}`)
  await expect(folio.row(2)).toContainText('z')
  await page.keyboard.press('Control+F9')
  await page.getByRole('button', { name: 'The sheet' }).click()
  const pages = page.getByRole('region', { name: 'The sheet' }).getByRole('article')
  await expect(pages.nth(2)).toBeVisible()
  const cut = await pages.evaluateAll(
    (all) =>
      all.flatMap((one) => {
        const { bottom } = one.getBoundingClientRect()
        return [...one.querySelectorAll('.cell')].filter((cell) => cell.getBoundingClientRect().bottom > bottom)
      }).length,
  )
  expect(cut).toBe(0)
  await expect(page.getByRole('article').filter({ hasText: 'Part 13' })).toHaveCount(1)
})

test('the print command of the browser gives the same sheet, and the folio back', async ({ folio, page }) => {
  await folio.open([
    '# Given',
    'V = 230∠0°',
    'Z = 12 + 5j',
    ...Array.from({ length: 40 }, (_, k) => `I_${k} = V/(Z + ${k})`),
  ])
  await expect(folio.row(4)).toContainText('I')
  // The sheet is fetched while nothing else is to be done.
  await expect(page.locator('[data-sheet="ready"]')).toBeVisible()
  const printed = (await page.pdf({ preferCSSPageSize: true })).toString('latin1')
  await expect(page.getByRole('region', { name: 'The sheet' })).toHaveCount(0)
  await page.keyboard.press('Control+F9')
  await page.getByRole('button', { name: 'The sheet' }).click()
  const pages = page.getByRole('region', { name: 'The sheet' }).getByRole('article')
  await expect(pages.first()).toContainText('page 1 of')
  expect(printed.match(/\/Type\s*\/Page\b/g)).toHaveLength(await pages.count())
})

test('the parts of measured data are offered as they are typed', async ({ folio, page }) => {
  await folio.open(['a = 1'])
  await drop(folio.row(1), 'lamp.s1p', '# kHz Z RI R 1\n1 3 4\n2 6 8\n')
  await page.getByLabel('and draw it').uncheck()
  await page.getByRole('button', { name: 'Keep with the folio' }).click()
  await expect(folio.row(2)).toContainText('.f .Z')
  await folio.row(2).locator('.opener').focus()
  await page.keyboard.press('Control+Enter')
  await page.keyboard.type('lamp.')
  await expect(page.getByRole('option', { name: /lamp\.f/ })).toBeVisible()
  await page.getByRole('option', { name: /lamp\.Z/ }).click()
  await expect(folio.editor).toHaveText('lamp.Z')
})
