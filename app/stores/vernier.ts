import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { literalNear, stepOf, withNumber } from '#core/notation/realLiterals'
import type { RealLiteral } from '#core/notation/realLiterals'
import { useFolioStore } from './folio'
import { useResultsStore } from './results'

/** A number of a line that is in hand. */
export interface Held {
  readonly line: string
  /** Which of the numbers of the line it is. */
  readonly place: number
  /** The line before it was taken in hand, and as it stands now but for what is being slid. */
  readonly before: string
  readonly base: string
  readonly literal: RealLiteral
}

/** How long keys rest before what they did is kept, in milliseconds. */
const RESTING = 900

/** The vernier: one real number of one line in hand, slid along a scale; plates and ledger follow. */
export const useVernierStore = defineStore('vernier', () => {
  const folio = useFolioStore()
  const results = useResultsStore()

  const held = shallowRef<Held | null>(null)
  const value = ref(0)
  const low = ref(0)
  const high = ref(1)
  const step = ref(0.01)
  let resting: ReturnType<typeof setTimeout> | null = null

  const numbersOf = (line: string): readonly RealLiteral[] => results.views.get(line)?.numbers ?? []
  const text = computed(() => {
    const now = held.value
    if (!now) return ''
    // Until it is slid it stands as it was written.
    return value.value === now.literal.value ? now.base : withNumber(now.base, now.literal, value.value, step.value)
  })
  /** Where the number stands in the line as it reads now. */
  const span = computed(() => {
    const now = held.value
    if (!now) return { from: 0, to: 0 }
    return { from: now.literal.digits.from, to: text.value.length - (now.base.length - now.literal.digits.to) }
  })

  /** Takes a number of a line in hand: the one at a place of its text, or the first. */
  function take(line: string, at: number | null = null): boolean {
    if (!folio.writable) return false
    if (folio.editing) folio.keep()
    letGo()
    const source = folio.lineOf(line)?.source
    const all = numbersOf(line)
    const literal = at === null ? (all[0] ?? null) : literalNear(all, at)
    if (source === undefined || !literal) {
      folio.tell('There is no real number in this line that could be taken in hand.')
      return false
    }
    hold(line, source, all.indexOf(literal), literal)
    return true
  }

  function hold(line: string, source: string, place: number, literal: RealLiteral): void {
    const digits = source.slice(literal.digits.from, literal.digits.to)
    held.value = { line, place, before: source, base: source, literal }
    value.value = literal.value
    step.value = stepOf(digits)
    low.value = 0
    high.value = literal.value > 0 ? roundUp(2 * literal.value) : 1
  }

  /** The next number of the same line. */
  function another(by: 1 | -1): void {
    const now = held.value
    if (!now) return
    settle()
    const all = numbersOf(now.line)
    const place = (now.place + by + all.length) % all.length
    const [source, literal] = [folio.lineOf(now.line)?.source, all[place]]
    if (source !== undefined && literal) hold(now.line, source, place, literal)
  }

  /** The number under the hand: the line follows, and all that depends on it. */
  function slide(to: number): void {
    const now = held.value
    if (!now || !Number.isFinite(to)) return
    value.value = Number((Math.round(to / step.value) * step.value).toPrecision(12))
    void results.type(now.line, text.value)
    if (resting !== null) clearTimeout(resting)
    resting = setTimeout(settle, RESTING)
  }

  const nudge = (steps: number): void => slide(value.value + steps * step.value)

  /** Keeps what was slid so far: one step to undo. */
  function settle(): void {
    if (resting !== null) clearTimeout(resting)
    resting = null
    const now = held.value
    if (!now || folio.lineOf(now.line) === null) return
    if (text.value === now.base) return void results.settle()
    const [source, digits] = [text.value, span.value]
    folio.rewrite(now.line, source, 'vernier')
    const moved = digits.to - now.literal.digits.to
    held.value = {
      ...now,
      base: source,
      literal: { ...now.literal, to: now.literal.to + moved, digits, value: value.value },
    }
  }

  function letGo(): void {
    settle()
    held.value = null
  }

  /** Gives the line back what it was before. */
  function restore(): void {
    const now = held.value
    if (resting !== null) clearTimeout(resting)
    resting = null
    held.value = null
    if (!now) return
    if (folio.lineOf(now.line)?.source === now.before) void results.settle()
    else folio.rewrite(now.line, now.before, 'vernier')
  }

  /** Another range, or another step; a range goes from the smaller to the larger number. */
  function set(change: { readonly low?: number; readonly high?: number; readonly step?: number }): boolean {
    const next = { low: low.value, high: high.value, step: step.value, ...change }
    if (![next.low, next.high, next.step].every(Number.isFinite) || !(next.low < next.high) || !(next.step > 0))
      return false
    if ((next.high - next.low) / next.step > 1e6) return false
    low.value = next.low
    high.value = next.high
    step.value = next.step
    return true
  }

  // What is edited by hand is in no other hand.
  watch(
    () => [folio.editing?.id, folio.id, held.value && folio.lineOf(held.value.line)?.source] as const,
    ([editing, , source]) => {
      const now = held.value
      if (!now) return
      if (editing === now.line || source === undefined || (source !== now.base && source !== text.value)) {
        if (resting !== null) clearTimeout(resting)
        resting = null
        held.value = null
      }
    },
  )

  return { held, value, low, high, step, text, span, take, another, slide, nudge, settle, letGo, restore, set }
})

/** The next number with one digit. */
function roundUp(x: number): number {
  const unit = 10 ** Math.floor(Math.log10(x))
  return Number((Math.ceil(x / unit - 1e-9) * unit).toPrecision(6))
}
