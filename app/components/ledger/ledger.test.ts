/** @jest-environment jsdom */
import { reckon } from '#core/testing'
import type { Conventions } from '#core/format/conventions'
import { useFolioStore } from '~/stores/folio'
import { fetchTypesetter } from '~/texts/typeset'
import { usePreferencesStore } from '~/stores/preferences'
import { useSilenceStore } from '~/stores/silence'
import { Mounted } from '../mounted.testing'
import EntryList from './EntryList.vue'
import LineMessages from './LineMessages.vue'
import LineOpener from './LineOpener.vue'
import LineStrip from './LineStrip.vue'
import MatrixTable from './MatrixTable.vue'
import SweepResult from './SweepResult.vue'

let page: Mounted
beforeAll(fetchTypesetter)
beforeEach(() => localStorage.clear())
afterEach(() => page.close())

/** The last line of these, as a page gets it. */
function viewOf(lines: readonly string[], conventions: Partial<Conventions> = {}) {
  const found = reckon(lines, conventions).at(-1)
  if (!found) throw new Error('there is a line')
  return found.view
}
const cells = (): string[] => page.all('td').map((td) => (td.textContent ?? '').trim())

describe('a matrix', () => {
  const shown = (entry: string): void => {
    const { readout } = viewOf([entry])
    page = new Mounted(MatrixTable, { readout, letter: 'j', line: 'a', number: 3, said: false }, ['grid'])
  }

  test('of up to 4 × 4 stands in full, with its shape', () => {
    shown('[[1, 2], [3, 4]]')
    expect(cells()).toEqual(['1', '2', '3', '4'])
    expect(page.text).toContain('2 × 2')
    expect(page.all('button').map((b) => b.textContent)).toEqual(['grid'])
    expect(page.one('table').getAttribute('aria-label')).toBe('Matrix of 2 rows and 2 columns')
  })

  test('that is larger folds to its corner, with dots where it goes on, and unfolds', async () => {
    shown(
      `[${Array.from({ length: 6 }, (_, r) => `[${[1, 2, 3, 4, 5].map((c) => 10 * r + c).join(', ')}]`).join(', ')}]`,
    )
    expect(page.all('tr')).toHaveLength(5)
    expect(cells().slice(0, 5)).toEqual(['1', '2', '3', '4', '…'])
    expect(page.text).toContain('⋱')
    await page.click('show it')
    expect(page.all('td')).toHaveLength(30)
    expect(page.text).not.toContain('…')
    expect(page.button('fold to the corner').getAttribute('aria-expanded')).toBe('true')
    await page.click('fold to the corner')
    expect(page.all('tr')).toHaveLength(5)
  })

  test('of complex entries shows one form, and the other by a switch', async () => {
    shown('[[3 + 4j, 1], [2j, 5]]')
    expect(cells()[0]).toBe('3 + 4j')
    await page.click('polar')
    expect(cells()[0]).toMatch(/^5 ∠ 53\.13/)
    expect(page.button('rectangular').getAttribute('aria-pressed')).toBe('true')
    await page.click('rectangular')
    expect(cells()[2]).toBe('0 + 2j')
  })

  test('whose reading says it all shows its shape alone, and its polar form on request', async () => {
    const { readout } = viewOf(['[[3 + 4j, 1], [2j, 5]]'])
    page = new Mounted(MatrixTable, { readout, letter: 'j', line: 'a', number: 3, said: true }, ['grid'])
    expect(page.all('table')).toHaveLength(0)
    expect(page.text).toContain('2 × 2')
    await page.click('polar')
    expect(cells()[0]).toMatch(/^5 ∠ 53\.13/)
  })

  test('asks for its grid', async () => {
    shown('[[1, 2], [3, 4]]')
    await page.click('grid')
    expect(page.told).toEqual([['grid']])
  })
})

describe('a vector', () => {
  const shown = (entry: string): void => {
    page = new Mounted(EntryList, { readout: viewOf([entry]).readout, letter: 'j', said: false })
  }

  test('has its entries with their places, its length and its direction', () => {
    shown('[3, 4]')
    expect(page.all('th').map((th) => th.textContent)).toEqual(['1', '2'])
    expect(page.text).toMatch(/length 5/)
    expect(page.text).toMatch(/direction 53\.13/)
  })

  test('of complex entries shows both forms of each', () => {
    shown('[3 + 4j, 1]')
    expect(cells()[0]).toBe('3 + 4j')
    expect(cells()[1]).toMatch(/^5 ∠/)
  })

  test('whose entries the reading says tells what they come to', () => {
    const { readout } = viewOf(['[3, 4]'])
    page = new Mounted(EntryList, { readout, letter: 'j', said: true })
    expect(page.all('td')).toHaveLength(0)
    expect(page.text).toMatch(/length 5/)
  })

  test('that is long folds, and unfolds', async () => {
    shown('vector(1 to 9)')
    expect(page.all('tr')).toHaveLength(6)
    await page.click(/^9 entries: show all$/)
    expect(page.all('tr')).toHaveLength(9)
    await page.click('fold')
    expect(page.all('tr')).toHaveLength(6)
  })
})

describe('a sweep', () => {
  test('shows its ends and as many points as it has, and no curve where nothing is finite', () => {
    const view = viewOf(['x = 0 to 100 step 25', 'y = x^2'])
    page = new Mounted(SweepResult, { view, readout: view.readout, letter: 'j', number: 2, hue: null })
    expect(page.text).toMatch(/^0… ?10000/)
    expect(page.text).toContain('5')
    const [path] = page.all('path').map((p) => p.getAttribute('d') ?? '')
    expect(path?.match(/[ML]/g)).toHaveLength(5)
  })
})

describe('what is said under a line', () => {
  const said = (lines: readonly string[], more: Readonly<Record<string, unknown>> = {}): void => {
    const view = viewOf(lines)
    const props = {
      line: 'a',
      problem: view.problem,
      hints: view.hints,
      reachable: true,
      editing: false,
      text: '',
      held: false,
      cause: null,
    }
    page = new Mounted(LineMessages, { ...props, ...more }, ['fix', 'cause'])
  }

  test('an error has its sentence, and each of its fixes is a button that gives the text', async () => {
    said(['a = 5', 'A + 1'])
    expect(page.all('.problem')).toHaveLength(1)
    expect(page.text).toContain(viewOf(['a = 5', 'A + 1']).problem?.message ?? '?')
    const fix = page.one('.fix')
    fix.click()
    expect(page.told).toHaveLength(1)
    expect(page.told[0]?.[0]).toBe('fix')
    expect(page.told[0]?.[2]).toBe('a')
  })

  test('an error that comes from another line leads there', () => {
    said(['a = 5 +', 'a + 1'], { cause: { id: 'x', index: 0, place: null } })
    page.button(/^mend line 1/).click()
    expect(page.told).toEqual([['cause']])
    said(['a + 1'], { cause: null })
    expect(page.all('.fix').some((button) => button.textContent?.includes('line'))).toBe(false)
  })

  test('a line of prose can be made a note, an error of reckoning cannot', async () => {
    said(['the current is sought'], { text: 'the current is sought' })
    expect(page.button('make it a note')).toBeTruthy()
    said(['A + 1'], { text: 'A + 1' })
    expect(page.all('.fix').some((button) => button.textContent?.includes('note'))).toBe(false)
  })

  test('a hint goes when it is understood, and after three times is a mark that unfolds', async () => {
    said(['-2^2'])
    const silence = useSilenceStore()
    const { id } = useFolioStore()
    const code = viewOf(['-2^2']).hints[0]?.code ?? ''
    expect(code).toBe('negative-power')
    await page.click('Understood')
    expect(silence.isSilent(id, 'a', code)).toBe(true)
    expect(silence.isSilent(id, 'b', code)).toBe(false)
    for (const line of ['b', 'c']) silence.understand(id, line, code)
    await page.set({ line: 'd' })
    expect(page.text).not.toContain('Understood')
    await page.click('hint')
    expect(page.text).toContain('Understood')
  })

  test('of several hints the first is said, the others are counted', () => {
    said(['-2^2 + 1/2pi + sin(30)'])
    const hints = viewOf(['-2^2 + 1/2pi + sin(30)']).hints.length
    expect(hints).toBeGreaterThan(1)
    expect(page.text).toContain(`+${hints - 1}`)
    expect(page.one('.more').title).not.toBe('')
  })

  test('a line without anything to say says nothing', () => {
    said(['1 + 1'])
    expect(page.text).toBe('')
  })
})

describe('a line that is not being edited', () => {
  const line = (source: string, more: object = {}) => ({ id: 'line-0001', source, ...more })
  const opened = (source: string, more: Readonly<Record<string, unknown>> = {}): void => {
    const props = { line: line(source), number: 4, view: viewOf([source]), marked: null, slim: false, reachable: true }
    page = new Mounted(LineOpener, { ...props, ...more }, ['pressed'])
  }

  test('is read as it was understood, and says what was typed to those who listen', () => {
    opened('1/2pi')
    expect(page.one('button').getAttribute('aria-label')).toBe('Line 4: 1/2pi. Edit')
    expect(page.one('button').getAttribute('aria-description')).toBe('1.5708')
    expect(page.all('.katex').length).toBeGreaterThan(0)
    expect(page.one('button').tabIndex).toBe(0)
  })

  test('with every bracket shown where that is wished', async () => {
    opened('1/2pi')
    const plain = page.one('.reading').innerHTML
    usePreferencesStore().grouping = true
    await page.set({ number: 5 })
    expect(page.one('.reading').innerHTML).not.toBe(plain)
  })

  test('with the place of its error marked, even where that is a gap', async () => {
    opened('2 + )', { marked: { before: '2 + ', at: ')', after: '' } })
    expect(page.one('mark').textContent).toBe(')')
    await page.set({ marked: { before: '2 +', at: '', after: '' } })
    expect(page.one('mark').classList).toContain('gap')
    expect(page.all('.katex')).toHaveLength(0)
  })

  test('a remark is text; a remark behind an entry stands below its reading; a folded line is its text', async () => {
    opened('# all in volts')
    expect(page.text).toBe('all in volts')
    page.close()
    opened('2 + 3  # five')
    expect(page.one('.trailing').textContent).toBe('five')
    page.close()
    opened('2 + 3', { slim: true })
    expect(page.text).toBe('2 + 3')
  })

  test('a click puts the caret at the term that was clicked: before it in its left half, behind it in its right', () => {
    opened('12 + 345')
    const folio = useFolioStore()
    const asked: unknown[] = []
    folio.edit = (id, caret) => void asked.push([id, caret])
    const term = page.all('[data-span]').find((span) => span.dataset.span === '5-8')
    if (!term) throw new Error('the second term has its place')
    term.getBoundingClientRect = () => ({ left: 100, width: 40 }) as DOMRect
    term.dispatchEvent(new MouseEvent('click', { clientX: 105, bubbles: true }))
    term.dispatchEvent(new MouseEvent('click', { clientX: 135, bubbles: true }))
    page.one('button').click()
    expect(asked).toEqual([['line-0001', 5], ['line-0001', 8], ['line-0001', undefined]]) // prettier-ignore
  })

  test('a note opens by a click, save on a link of it; keys are passed on', async () => {
    opened('see [there](https://example.org)', { line: line('see [there](https://example.org)', { note: true }) })
    const folio = useFolioStore()
    let asked = 0
    folio.edit = () => void (asked += 1)
    page.one('.opener').click()
    expect(asked).toBe(1)
    await page.press('.opener', 'ArrowDown')
    expect(page.told).toHaveLength(1)
    page.close()
    opened('', { line: line('', { note: true }) })
    expect(page.text).toBe('An empty note')
  })
})

describe('the strip under the line that is typed', () => {
  const nothing = { draft: null, view: null, waiting: null, stale: false }

  test('says what it waits for, the reading of what is typed, or the last that could be read', async () => {
    page = new Mounted(LineStrip, nothing)
    expect(page.text).toBe('The reading of the line appears here as you type.')
    await page.set({ draft: viewOf(['2 + 3']) })
    expect(page.all('.katex').length).toBeGreaterThan(0)
    await page.set({ draft: viewOf(['2 + )']), view: viewOf(['2 + 3']), stale: true })
    expect(page.all('.katex').length).toBeGreaterThan(0)
    expect(page.text).toContain('result from before this edit')
    const waiting = viewOf(['(2 + 3']).problem
    expect(waiting?.unfinished).toBe(true)
    await page.set({ waiting })
    expect(page.text).toContain(waiting?.message ?? '?')
  })
})
