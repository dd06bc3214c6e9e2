import { defineStore } from 'pinia'
import { ref } from 'vue'
import { z } from '#shared/schema'

/** Hints that the student has understood: silent on that line, and after three times small in the whole folio. */
const KEY = 'ornate-phasor:understood'
const schema = z.record(z.string(), z.array(z.string()))
/** How often a hint must be understood before it shrinks to a mark. */
const ENOUGH = 3
/** Folios that are remembered. */
const FOLIOS_KEPT = 40

function load(): Record<string, string[]> {
  try {
    const parsed = schema.safeParse(JSON.parse(localStorage.getItem(KEY) ?? '{}'))
    return parsed.success ? parsed.data : {}
  } catch {
    return {}
  }
}

export const useSilenceStore = defineStore('silence', () => {
  const understood = ref(load())

  const entry = (line: string, code: string): string => `${line} ${code}`

  function understand(folio: string, line: string, code: string): void {
    const list = [...(understood.value[folio] ?? []), entry(line, code)]
    const others = Object.entries(understood.value).filter(([id]) => id !== folio)
    understood.value = Object.fromEntries([...others.slice(1 - FOLIOS_KEPT), [folio, [...new Set(list)]]])
    try {
      localStorage.setItem(KEY, JSON.stringify(understood.value))
    } catch {
      // A hint that comes again is no loss.
    }
  }

  function isSilent(folio: string, line: string, code: string): boolean {
    return understood.value[folio]?.includes(entry(line, code)) ?? false
  }

  /** True where the hint has been understood often enough to be a mark only. */
  function isSmall(folio: string, code: string): boolean {
    return (understood.value[folio] ?? []).filter((e) => e.endsWith(` ${code}`)).length >= ENOUGH
  }

  return { understand, isSilent, isSmall }
})
