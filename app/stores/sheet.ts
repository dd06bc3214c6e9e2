import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { z } from 'zod'

/** What is on the sheet that is handed in, and who hands it in: kept on this device, never with the folio. */
const KEY = 'ornate-phasor:sheet'

const choicesSchema = z.object({
  paper: z.enum(['A4', 'Letter']).default('A4'),
  answers: z.enum(['head', 'end', 'none']).default('head'),
  forms: z.enum(['both', 'rectangular', 'polar']).default('both'),
  notes: z.boolean().default(true),
  plates: z.boolean().default(true),
  colour: z.boolean().default(false),
  conventions: z.boolean().default(true),
})
export type SheetChoices = z.infer<typeof choicesSchema>
const keptSchema = z.object({ names: z.array(z.string().max(120)).max(12).default([]), choices: choicesSchema })

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
