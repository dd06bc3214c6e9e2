import { conventionsSchema, DEFAULT_CONVENTIONS } from '../../shared/conventions'
import { folioCardSchema, folioSchema, SHELF_PAGE, thumbnailSchema, titleSchema } from '../../shared/folio'
import type { FolioCard, ShelfPage, ShelfSort, Thumbnail } from '../../shared/folio'
import type { Database } from './database'
import { DamagedFolio, orderSchema, readJson, titleOf } from './folios'
import { tryJson } from './json'
import { SEARCH_SHIFT } from './migrations/keys-names-and-search'
import type { FolioRow } from './models'

const PREVIEW_LINES = 40
/** Letters from which on the index of the texts can be asked. */
const INDEXED_FROM = 3

export interface Asked {
  readonly find?: string
  readonly sort?: ShelfSort
  readonly from?: number
  readonly bin?: boolean
}

const ORDER: Readonly<Record<Exclude<ShelfSort, 'title'>, string>> = {
  changed: 'changed_at DESC, id',
  created: 'created_at DESC, id',
  length: 'length DESC, changed_at DESC, id',
}
const COUNTED = 'CASE WHEN json_valid(line_order) THEN json_array_length(line_order) ELSE 0 END'
/** Lines are counted only where folios are sorted by their number. */
const LENGTH: Readonly<Record<ShelfSort, string>> = { changed: '0', created: '0', title: '0', length: COUNTED }

function likeText(text: string): string {
  return `%${text.replace(/[\\%_]/g, '\\$&')}%`
}

/** Of a long line the place itself. */
function excerpt(source: string, text: string): string {
  if (source.length <= 160) return source
  const at = source.toLowerCase().indexOf(text.toLowerCase())
  return `…${source.slice(Math.max(0, at - 40), at + 100)}…`
}

/** Which folios have a text in their title or in a line, whatever its case. */
function found(text: string): { readonly where: string; readonly values: string[] } {
  if (text === '') return { where: '', values: [] }
  const like = likeText(text)
  const title = "title LIKE ? ESCAPE '\\'"
  if ([...text].length < INDEXED_FROM) {
    // Two letters are no three: the lines themselves are looked through, of each folio up to the first that has them.
    const lines = "EXISTS (SELECT 1 FROM lines WHERE lines.folio_id = folios.id AND source LIKE ? ESCAPE '\\')"
    return { where: `WHERE ${title} OR ${lines}`, values: [like, like] }
  }
  // The rows of the index are numbered by folio: nothing else need be read.
  const lines = `SELECT folio_id FROM folio_numbers WHERE number IN (
    SELECT DISTINCT rowid >> ${SEARCH_SHIFT} FROM search WHERE search MATCH ?)`
  return { where: `WHERE ${title} OR id IN (${lines})`, values: [like, `"${text.replaceAll('"', '""')}"`] }
}

/** By this key titles stand as in a register: without case and accents, numbers by their size. */
export function sortKey(title: string): string {
  return title
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/\d+/g, (digits) => digits.replace(/^0+(?=\d)/, '').padStart(16, '0'))
}

/** The shelf: cards of the folios, a page at a time, and the search of all texts. */
export class Shelf {
  constructor(private readonly database: Database) {}

  /** Some cards in the order asked for, and how many there are. One damaged folio has a card that says so. */
  async page({ find = '', sort = 'changed', from = 0, bin = false }: Asked = {}): Promise<ShelfPage> {
    const text = find.trim()
    const { where, values } = found(text)
    const wanted = `WITH wanted AS MATERIALIZED (
      SELECT id, title, binned_at IS NOT NULL AS binned, changed_at, created_at, ${LENGTH[sort]} AS length FROM folios ${where})`
    const order = sort === 'title' ? 'id' : ORDER[sort]
    const here = `SELECT id, title FROM wanted WHERE binned = ${bin ? 1 : 0} ORDER BY ${order}`
    const [counts] = await this.database.rows<{ shelf: number; binned: number; ids: string }>(
      `${wanted} SELECT
        (SELECT count(*) FROM wanted WHERE binned = 0) AS shelf,
        (SELECT count(*) FROM wanted WHERE binned = 1) AS binned,
        (SELECT json_group_array(id) FROM (${here} LIMIT ${SHELF_PAGE} OFFSET ${Math.floor(from)})) AS ids`,
      values,
    )
    const { shelf = 0, binned = 0, ids = '[]' } = counts ?? {}
    const page =
      sort === 'title'
        ? await this.byTitle(`${wanted} ${here}`, values, from)
        : readJson('the list of folios', ids, orderSchema)
    return { folios: await this.cards(page, text), count: bin ? binned : shelf, binned }
  }

  /** Titles in the order of the alphabet, numbers in them as numbers: SQLite has no such order. */
  private async byTitle(sql: string, values: readonly string[], from: number): Promise<string[]> {
    const rows = await this.database.rows<{ id: string; title: string }>(sql, [...values])
    const keyed = rows.map((row) => ({ id: row.id, key: sortKey(String(row.title)) }))
    keyed.sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : a.id < b.id ? -1 : 1))
    return keyed.slice(from, from + SHELF_PAGE).map((row) => row.id)
  }

  private async cards(ids: readonly string[], text: string): Promise<FolioCard[]> {
    if (ids.length === 0) return []
    const rows = await this.database.models.folios.findAll({ where: { id: [...ids] } })
    const byId = new Map(rows.map((row) => [row.id, row]))
    const thumbnails = await this.pictures(rows)
    const previews = await this.previews(ids.filter((id) => !thumbnails.has(id)))
    const matches = text === '' ? new Map<string, string>() : await this.linesWith(ids, text)
    return ids.flatMap((id) => {
      const row = byId.get(id)
      if (!row) return []
      return [card(row, { ...thumbnails.get(id), preview: previews.get(id) ?? [] }, matches.get(id) ?? null)]
    })
  }

  /** The pictures that were reckoned for the present revisions. */
  private async pictures(folios: readonly FolioRow[]): Promise<Map<string, { readonly thumbnail: Thumbnail }>> {
    const rows = await this.database.rows<{ folio_id: string; revision: number; picture: string }>(
      `SELECT folio_id, revision, picture FROM thumbnails WHERE folio_id IN (${folios.map(() => '?').join(', ')})`,
      folios.map((f) => f.id),
    )
    const revisions = new Map(folios.map((f) => [f.id, f.revision]))
    return new Map(
      rows.flatMap((row) => {
        const thumbnail = revisions.get(row.folio_id) === row.revision ? tryJson(row.picture, thumbnailSchema) : null
        return thumbnail ? [[row.folio_id, { thumbnail }] as const] : []
      }),
    )
  }

  /** The first lines of the folios that have no picture yet, in their order. */
  private async previews(ids: readonly string[]): Promise<Map<string, string[]>> {
    if (ids.length === 0) return new Map()
    const rows = await this.database.rows<{ folio_id: string; source: string; note: number }>(
      `SELECT l.folio_id, l.source, l.note FROM folios f
        JOIN json_each(CASE WHEN json_valid(f.line_order) THEN f.line_order ELSE '[]' END) AS place
        JOIN lines l ON l.folio_id = f.id AND l.id = place.value
        WHERE f.id IN (${ids.map(() => '?').join(', ')}) AND place.key < ${PREVIEW_LINES}
        ORDER BY f.id, place.key`,
      [...ids],
    )
    const found = new Map<string, string[]>(ids.map((id) => [id, []]))
    for (const row of rows) found.get(row.folio_id)?.push(row.note === 1 ? '' : String(row.source))
    return found
  }

  /** For each of the folios one line that has a text, where one has. */
  private async linesWith(ids: readonly string[], text: string): Promise<Map<string, string>> {
    const rows = await this.database.rows<{ folio_id: string; source: string }>(
      `SELECT folio_id, source, min(id) FROM lines
        WHERE folio_id IN (${ids.map(() => '?').join(', ')}) AND source LIKE ? ESCAPE '\\' GROUP BY folio_id`,
      [...ids, likeText(text)],
    )
    return new Map(rows.map((r) => [r.folio_id, excerpt(String(r.source), text)]))
  }

  /** Keeps the picture that was reckoned for a revision of a folio. */
  async keepPicture(folioId: string, revision: number, thumbnail: Thumbnail): Promise<void> {
    await this.database.write((transaction) =>
      this.database.run(
        `INSERT INTO thumbnails (folio_id, revision, picture)
          SELECT id, revision, ? FROM folios WHERE id = ? AND revision = ?
          ON CONFLICT (folio_id) DO UPDATE SET revision = excluded.revision, picture = excluded.picture`,
        [JSON.stringify(thumbnail), folioId, revision],
        transaction,
      ),
    )
  }
}

/** What a card's picture is drawn from. */
interface Drawn {
  readonly thumbnail?: Thumbnail
  readonly preview: readonly string[]
}

/** The card of a folio. Each folio stands alone: what is wrong with this one is said on its card. */
function card(row: FolioRow, drawn: Drawn, match: string | null): FolioCard {
  try {
    return wholeCard(row, drawn, match)
  } catch (error) {
    if (!(error instanceof DamagedFolio)) throw error
    return damagedCard(row, error.reason)
  }
}

function wholeCard(row: FolioRow, { thumbnail, preview }: Drawn, match: string | null): FolioCard {
  const order = readJson('the order of its lines', row.lineOrder, orderSchema)
  const conventions = readJson('its conventions', row.conventions, conventionsSchema)
  readJson('its plates', row.plates, platesSchema)
  if (!titleSchema.safeParse(row.title).success) throw new DamagedFolio('Its title cannot be read.')
  const found = folioCardSchema.safeParse({
    id: row.id,
    title: row.title,
    revision: row.revision,
    lineCount: order.length,
    changedAt: row.changedAt,
    binnedAt: row.binnedAt,
    conventions,
    thumbnail: thumbnail ?? null,
    preview: thumbnail ? [] : preview,
    createdAt: row.createdAt,
    match,
    damaged: null,
  })
  if (!found.success) throw new DamagedFolio('A part of it cannot be read.')
  return found.data
}

const platesSchema = folioSchema.shape.plates

function damagedCard(row: FolioRow, reason: string): FolioCard {
  const text = (value: unknown): string => (typeof value === 'string' ? value : '')
  return {
    id: row.id,
    title: titleOf(row.title),
    revision: 0,
    lineCount: 0,
    changedAt: text(row.changedAt),
    binnedAt: typeof row.binnedAt === 'string' ? row.binnedAt : null,
    conventions: DEFAULT_CONVENTIONS,
    thumbnail: null,
    preview: [],
    createdAt: text(row.createdAt),
    match: null,
    damaged: reason,
  }
}
