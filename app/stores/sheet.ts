import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { list, or, text, z } from '#shared/schema'

/** What is on the sheet that is handed in, and who hands it in: kept on this device, never with the folio. */
const KEY = 'ornate-phasor:sheet'

const choicesSchema = z.object({
  paper: or(z.enum(['A4', 'Letter']), 'A4'),
  answers: or(z.enum(['head', 'end', 'none']), 'head'),
  forms: or(z.enum(['both', 'rectangular', 'polar']), 'both'),
  notes: or(z.boolean(), true),
  plates: or(z.boolean(), true),
  /** The account of the runs, where there is one. */
  runs: or(z.boolean(), true),
  colour: or(z.boolean(), false),
  conventions: or(z.boolean(), true),
})
export type SheetChoices = z.infer<typeof choicesSchema>
const keptSchema = z.object({ names: or(list(text(120), 12), []), choices: choicesSchema })

function load(): z.infer<typeof keptSchema> {
  const none = { names: [], choices: choicesSchema.parse({}) }
  try {
    const kept = keptSchema.safeParse(JSON.parse(localStorage.getItem(KEY) ?? 'null'))
    return kept.success ? kept.data : none
  } catch {
    return none
  }
}

export const useSheetStore = defineStore('sheet', () => {
  const kept = load()
  /** Names, with student numbers where they are wanted. */
  const names = ref<readonly string[]>(kept.names)
  const choices = ref<SheetChoices>(kept.choices)

  watch(
    [names, choices],
    () => {
      try {
        localStorage.setItem(KEY, JSON.stringify({ names: names.value, choices: choices.value }))
      } catch {
        // A browser that keeps nothing asks for the names again.
      }
    },
    { flush: 'post' },
  )

  function choose(change: Partial<SheetChoices>): void {
    choices.value = { ...choices.value, ...change }
  }

  return { names, choices, choose }
})
