import { fault } from './told'
import type { Fault } from './told'

/**
 * Bytes as text. A byte order mark decides; without one it is UTF-8 where the bytes are well formed, UTF-16 where
 * every other byte is zero, and else Latin-1 (as windows-1252, whose letters contain it).
 */

export type Encoding = 'UTF-8' | 'UTF-16' | 'Latin-1'

export interface Text {
  readonly kind: 'text'
  readonly text: string
  readonly encoding: Encoding
}

/** Most bytes of a file that is opened. */
export const FILE_BYTES_MOST = 50 * 1024 * 1024

export function decode(bytes: Uint8Array): Text | Fault {
  if (bytes.length > FILE_BYTES_MOST) return fault('too-big', { bytes: bytes.length, most: FILE_BYTES_MOST })
  const [a, b, c] = bytes
  if (a === 0xff && b === 0xfe) return utf16(bytes.subarray(2), true)
  if (a === 0xfe && b === 0xff) return utf16(bytes.subarray(2), false)
  if (a === 0xef && b === 0xbb && c === 0xbf) return told(utf8(bytes.subarray(3)) ?? latin1(bytes), 'UTF-8')
  const zeros = zerosByParity(bytes)
  if (zeros.odd > 0 && zeros.even === 0) return utf16(bytes, true)
  if (zeros.even > 0 && zeros.odd === 0) return utf16(bytes, false)
  if (zeros.even > 0) return fault('binary', {})
  const text = utf8(bytes)
  return text === null ? told(latin1(bytes), 'Latin-1') : told(text, 'UTF-8')
}

function told(text: string, encoding: Encoding): Text | Fault {
  return isText(text) ? { kind: 'text', text, encoding } : fault('binary', {})
}

/** Control characters, but for tabs, line breaks, form feeds and an end mark, are in no text. */
function isText(text: string): boolean {
  const sample = text.length > 100_000 ? text.slice(0, 100_000) : text
  // eslint-disable-next-line no-control-regex -- these are what is looked for
  return !/[\u0000-\u0008\u000b\u000e-\u0019\u001c-\u001f\u007f]/.test(sample)
}

function zerosByParity(bytes: Uint8Array): { even: number; odd: number } {
  const found = { even: 0, odd: 0 }
  const end = Math.min(bytes.length, 4096)
  for (let k = 0; k < end; k += 1) if (bytes[k] === 0) found[k % 2 === 0 ? 'even' : 'odd'] += 1
  return found
}

/** Characters put together at once: more would be too many arguments of one call. */
const CHUNK = 8_192

function put(codes: Uint16Array, count: number): string {
  let text = ''
  for (let k = 0; k < count; k += CHUNK) text += String.fromCharCode(...codes.subarray(k, Math.min(count, k + CHUNK)))
  return text
}

function utf16(bytes: Uint8Array, little: boolean): Text | Fault {
  const codes = new Uint16Array(bytes.length >> 1)
  for (let k = 0; k < codes.length; k += 1) {
    const [first, second] = [bytes[2 * k] ?? 0, bytes[2 * k + 1] ?? 0]
    codes[k] = little ? first | (second << 8) : (first << 8) | second
  }
  return told(put(codes, codes.length), 'UTF-16')
}

/** Bytes 0x80 to 0x9f of windows-1252 (the WHATWG Encoding Standard's index); the others are Latin-1. */
const WINDOWS = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ'

function latin1(bytes: Uint8Array): string {
  const codes = new Uint16Array(bytes.length)
  for (let k = 0; k < bytes.length; k += 1) {
    const byte = bytes[k] ?? 0
    codes[k] = byte >= 0x80 && byte < 0xa0 ? WINDOWS.charCodeAt(byte - 0x80) : byte
  }
  return put(codes, codes.length)
}

/** Well-formed UTF-8 (RFC 3629) as text; `null` for anything else. */
function utf8(bytes: Uint8Array): string | null {
  const codes = new Uint16Array(bytes.length)
  let count = 0
  for (let k = 0; k < bytes.length;) {
    const first = bytes[k] ?? 0
    if (first < 0x80) {
      codes[count] = first
      count += 1
      k += 1
      continue
    }
    const more = first >= 0xc2 && first < 0xe0 ? 1 : first >= 0xe0 && first < 0xf0 ? 2 : first >= 0xf0 && first < 0xf5 ? 3 : 0 // prettier-ignore
    if (more === 0) return null
    let point = first & (0x3f >> more)
    for (let n = 1; n <= more; n += 1) {
      const byte = bytes[k + n]
      if (byte === undefined || (byte & 0xc0) !== 0x80) return null
      point = (point << 6) | (byte & 0x3f)
    }
    const least = more === 1 ? 0x80 : more === 2 ? 0x800 : 0x10000
    if (point < least || point > 0x10ffff || (point >= 0xd800 && point < 0xe000)) return null
    if (point < 0x10000) {
      codes[count] = point
      count += 1
    } else {
      codes[count] = 0xd7c0 + (point >> 10)
      codes[count + 1] = 0xdc00 | (point & 0x3ff)
      count += 2
    }
    k += more + 1
  }
  return put(codes, count)
}

/** Text as UTF-8. */
export function encode(text: string): Uint8Array {
  const bytes = new Uint8Array(text.length * 3)
  let count = 0
  const add = (byte: number): void => {
    bytes[count] = byte
    count += 1
  }
  for (const letter of text) {
    const point = letter.codePointAt(0) ?? 0
    // A half of a pair that stands alone has no form in UTF-8.
    const code = point >= 0xd800 && point < 0xe000 ? 0xfffd : point
    if (code < 0x80) add(code)
    else if (code < 0x800) [0xc0 | (code >> 6), 0x80 | (code & 0x3f)].forEach(add)
    else if (code < 0x10000) [0xe0 | (code >> 12), 0x80 | ((code >> 6) & 0x3f), 0x80 | (code & 0x3f)].forEach(add)
    else [0xf0 | (code >> 18), 0x80 | ((code >> 12) & 0x3f), 0x80 | ((code >> 6) & 0x3f), 0x80 | (code & 0x3f)].forEach(add) // prettier-ignore
  }
  return bytes.slice(0, count)
}
