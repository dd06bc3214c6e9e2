import { strToU8, zipSync } from 'fflate'
import * as fc from 'fast-check'
import { pack, plainName, unpack } from './archive'
import { decode, encode, FILE_BYTES_MOST } from './encoding'
import { openFile } from './open'
import { readPlain, writePlain } from './plainLines'
import { faultSentence } from './told'

const bytes = (text: string): Uint8Array => encode(text)

function said(content: Uint8Array, name = 'file'): string {
  const opened = openFile(content, name)
  return opened.kind === 'fault' ? faultSentence(opened) : opened.kind
}

/** An archive that states another size of its entries than they have. */
function stating(archive: Uint8Array, size: number, stated: number): Uint8Array {
  const lying = archive.slice()
  const view = new DataView(lying.buffer)
  for (let k = 0; k + 4 <= lying.length; k += 1) if (view.getUint32(k, true) === size) view.setUint32(k, stated, true)
  return lying
}

describe('encodings', () => {
  const text = 'Größe µ Ω ∠ 30° 𝄞\nZ = 3 + 4j\n'

  test('text is told apart by its bytes, with and without a byte order mark', () => {
    const little = Uint8Array.from(Buffer.from(text, 'utf16le'))
    const big = little.slice().map((_, k) => little[k ^ 1] ?? 0)
    for (const [content, encoding] of [
      [Uint8Array.from(Buffer.from(text)), 'UTF-8'],
      [Uint8Array.from(Buffer.from(`\uFEFF${text}`)), 'UTF-8'],
      [Uint8Array.from([0xff, 0xfe, ...little]), 'UTF-16'],
      [Uint8Array.from([0xfe, 0xff, ...big]), 'UTF-16'],
      [little, 'UTF-16'],
      [big, 'UTF-16'],
    ] as const)
      expect(decode(content)).toEqual({ kind: 'text', text, encoding })
    expect(decode(Uint8Array.from(Buffer.from('Zeit / \u00b5s; \u00e4', 'latin1')))).toEqual({
      kind: 'text',
      text: 'Zeit / µs; ä',
      encoding: 'Latin-1',
    })
    // windows-1252 has letters where Latin-1 has none.
    expect(decode(Uint8Array.of(0x80, 0x96, 0xb0, 0x41))).toMatchObject({ text: '€–°A' })
  })

  test('any text comes back as it went; the platform reads the same', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 60 }), (sample) => {
        const content = encode(sample)
        expect(content).toEqual(new TextEncoder().encode(sample))
        const decoded = decode(content)
        if (decoded.kind === 'text' && decoded.encoding === 'UTF-8' && !sample.startsWith('\uFEFF'))
          expect(decoded.text).toBe(new TextDecoder().decode(content))
      }),
      { numRuns: 2_000 },
    )
  })

  test('bytes that are no UTF-8 are never taken for it', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 12 }), (content) => {
        const decoded = decode(content)
        if (decoded.kind !== 'text' || decoded.encoding !== 'UTF-8') return
        const plain = content[0] === 0xef && content[1] === 0xbb && content[2] === 0xbf ? content.subarray(3) : content
        expect(decoded.text).toBe(new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(plain))
      }),
      { numRuns: 5_000 },
    )
  })
})

describe('what a file is, is told by what is in it', () => {
  test.each([
    ['{"title": "x", "lines": []}', 'any.txt', 'folio'],
    ['Z = 3 + 4j\n|Z|\n', 'any.json', 'lines'],
    ['%%MatrixMarket matrix array real general\n1 1\n5\n', 'any', 'matrix-market'],
    ['! made up\n# MHz S DB R 50\n1 -3 45\n', 'any', 'touchstone'],
    ['1 0.5 90\n2 0.5 80\n', 'lamp.s1p', 'touchstone'],
    ['t,u\n0,1\n1,2\n2,3\n', 'any', 'table'],
    ['# a remark, and nothing else\n', 'any', 'lines'],
    ['# S = 3, R = 5\nV = 230\n', 'any', 'lines'],
    ['2 3\n', 'any', 'lines'],
    ['R1 = 5\nR2 = 10\nR3 = 15\n', 'any', 'lines'],
    ['5\n10\n15\n20\n', 'any', 'lines'],
  ])('%j named %s is %s', (text, name, kind) => {
    const opened = openFile(bytes(text), name)
    expect(opened.kind === 'data' ? opened.format : opened.kind).toBe(kind)
  })
})

describe('hostile files get a sentence', () => {
  test('too large, empty, blank, binary', () => {
    expect(said(new Uint8Array(FILE_BYTES_MOST + 1))).toBe('The file has 50 MB; up to 50 MB are read.')
    expect(said(new Uint8Array(0))).toBe('The file is empty.')
    expect(said(bytes(' \n\n'))).toBe('The file is empty.')
    expect(said(Uint8Array.from({ length: 300 }, (_, k) => k % 256))).toContain('no text file')
  })

  test('a million columns', () => {
    expect(said(bytes(`${'1,'.repeat(1_000_000)}1\n`), 'wide.csv')).toMatch(/columns; up to 1000 are read|No table/)
  })

  test('an archive that is cut off anywhere, or has a byte turned, is refused or gives what it holds', () => {
    const whole = pack([{ name: 'a.folio.json', bytes: bytes('{"title": "a", "lines": []}'.repeat(50)) }])
    for (let end = 2; end < whole.length; end += 7) {
      const cut = unpack(whole.subarray(0, end))
      expect(cut.kind).toBe('fault')
    }
    fc.assert(
      fc.property(fc.nat(whole.length - 1), fc.integer({ min: 1, max: 255 }), (at, by) => {
        const turned = whole.slice()
        turned[at] = ((turned[at] ?? 0) + by) % 256
        const found = unpack(turned)
        expect(['fault', 'archive']).toContain(found.kind)
      }),
      { numRuns: 500 },
    )
  })

  test('what would unpack to too much is refused before it is unpacked', () => {
    const bomb = zipSync({ 'big.csv': new Uint8Array(65 * 1024 * 1024) })
    expect(bomb.length).toBeLessThan(200_000)
    expect(said(bomb)).toBe('“big.csv” in the archive would unpack to more than 64 MB.')
    const part = new Uint8Array(1_000_003)
    const many = stating(zipSync({ a: part, b: part, c: part, d: part, e: part }), 1_000_003, 60 * 1024 * 1024)
    expect(said(many)).toBe('The archive would unpack to more than 256 MB.')
  })

  test('an entry that says less of its size than it has is not unpacked beyond what it says', () => {
    const archive = zipSync({ 'a.csv': new Uint8Array(1_000_000) })
    const lying = archive.slice()
    const view = new DataView(lying.buffer)
    for (let k = 0; k + 4 <= lying.length; k += 1)
      if (view.getUint32(k, true) === 1_000_000) view.setUint32(k, 10, true)
    const found = unpack(lying)
    const size = found.kind === 'archive' ? (found.entries[0]?.bytes.length ?? 0) : 0
    expect(size).toBeLessThanOrEqual(10)
  })

  test('names that lead elsewhere are only names', () => {
    const archive = zipSync({
      '../../etc/passwd': strToU8('a'),
      'C:\\x\\..\\y.csv': strToU8('b'),
      'd/': new Uint8Array(0),
    })
    const found = unpack(archive)
    expect(found.kind === 'archive' && found.entries.map((e) => e.name)).toEqual(['passwd', 'y.csv'])
    expect(plainName('../..')).toBe('')
  })

  test('two files of one name stay two', () => {
    const found = unpack(pack([{ name: 'a.folio.json', bytes: bytes('1') }, { name: 'a.folio.json', bytes: bytes('2') }])) // prettier-ignore
    expect(found.kind === 'archive' && found.entries.map((e) => e.name)).toEqual(['a.folio.json', 'a 2.folio.json'])
  })

  test('whatever the bytes: a sentence or data, never an exception', () => {
    const pieces = fc.constantFrom('[', '#', '%%MatrixMarket matrix ', 'array ', 'real general', '\n', '1 2', ',', ';', '"', '1e999', 'NaN', '!', '[Version] 2.0', 'S RI', '{', '\u0000', 'é', '-') // prettier-ignore
    fc.assert(
      fc.property(
        fc.array(pieces, { maxLength: 40 }),
        fc.constantFrom('a', 'a.csv', 'a.s2p', 'a.mtx'),
        (parts, name) => {
          expect(said(bytes(parts.join('')), name)).not.toBe('')
        },
      ),
      { numRuns: 3_000 },
    )
  })
})

test('a folio as plain lines comes back with its notes', () => {
  const line = fc.oneof(
    fc.record({ source: fc.stringMatching(/^[^\r\n]{0,20}$/).filter((s) => !s.startsWith('#|')) }),
    fc.record({
      source: fc.string({ maxLength: 30 }).map((s) => s.replace(/\r\n?/g, '\n')),
      note: fc.constant(true as const),
    }),
  )
  fc.assert(
    fc.property(fc.array(line, { maxLength: 8 }), (lines) => {
      // Notes that follow one another are one note: the text says where they end, not how many they were.
      const apart = lines.filter((l, k) => !('note' in l && k > 0 && 'note' in (lines[k - 1] ?? {})))
      expect(readPlain(writePlain(apart))).toEqual(apart)
    }),
  )
})
