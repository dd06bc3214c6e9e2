import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import type { Conventions } from '#core/format/conventions'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import { someConventionsSchema } from '#shared/conventions'
import { customProperties, THEMES } from '~/theme/tokens'
import type { ThemeName } from '~/theme/tokens'

/** What belongs to this device, not to a folio: the theme, the width of the plates. */
const KEY = 'ornate-phasor:preferences'

interface Stored {
  readonly theme?: unknown
  readonly plateShare?: unknown
  readonly grouping?: unknown
  readonly close?: unknown
  readonly captioned?: unknown
  readonly defaults?: unknown
}

function load(): Stored {
  try {
    const data: unknown = JSON.parse(localStorage.getItem(KEY) ?? '{}')
    return typeof data === 'object' && data !== null ? data : {}
  } catch {
    return {}
  }
}

export const PLATE_SHARE_LEAST = 30
export const PLATE_SHARE_MOST = 55

export const usePreferencesStore = defineStore('preferences', () => {
  const stored = load()
  const system: ThemeName = matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day'
  const theme = ref<ThemeName>(stored.theme === 'day' || stored.theme === 'night' ? stored.theme : system)
  const plateShare = ref(clampShare(typeof stored.plateShare === 'number' ? stored.plateShare : 40))
  /** True while readings show every bracket that was supplied. */
  const grouping = ref(stored.grouping === true)
  /** True while the rows of the ledger stand close. */
  const close = ref(stored.close === true)
  /** True while pictures that are saved carry the number and the caption of their plate. */
  const captioned = ref(stored.captioned === true)

  /** The conventions that new folios begin with. */
  const defaults = ref<Conventions>({ ...DEFAULT_CONVENTIONS, ...storedConventions(stored.defaults) })

  function clampShare(share: number): number {
    return Math.min(PLATE_SHARE_MOST, Math.max(PLATE_SHARE_LEAST, share))
  }

  function setPlateShare(share: number): void {
    plateShare.value = clampShare(share)
  }

  watch(
    [theme, plateShare, grouping, close, captioned, defaults],
    () => {
      try {
        localStorage.setItem(
          KEY,
          JSON.stringify({
            theme: theme.value,
            plateShare: plateShare.value,
            grouping: grouping.value,
            close: close.value,
            captioned: captioned.value,
            defaults: defaults.value,
          }),
        )
      } catch {
        // Preferences that cannot be kept are no reason to stop.
      }
    },
    { flush: 'post' },
  )

  watch(
    theme,
    (name) => {
      const root = document.documentElement
      for (const [key, value] of Object.entries(customProperties(THEMES[name]))) root.style.setProperty(key, value)
      root.style.colorScheme = name === 'night' ? 'dark' : 'light'
      root.dataset.theme = name
    },
    { immediate: true, flush: 'sync' },
  )

  return { theme, plateShare, grouping, close, captioned, defaults, setPlateShare }
})

function storedConventions(data: unknown): Partial<Conventions> {
  const parsed = someConventionsSchema.safeParse(data)
  return parsed.success ? (JSON.parse(JSON.stringify(parsed.data)) as Partial<Conventions>) : {}
}
