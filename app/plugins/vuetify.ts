import { createVuetify } from 'vuetify'
import type { ThemeDefinition } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'
import { pageNonce } from '~/browser/nonce'
import { markOverlays } from '~/browser/overlays'
import { THEMES } from '~/theme/tokens'
import type { Theme } from '~/theme/tokens'

/** Our own theme on Vuetify: nothing of its default look is left over. */
function definition(theme: Theme, dark: boolean): ThemeDefinition {
  return {
    dark,
    colors: {
      background: theme.paper,
      surface: theme.leaf,
      primary: theme.teal,
      secondary: theme.brass,
      error: theme.error,
      success: theme.pass,
      'on-background': theme.ink,
      'on-surface': theme.ink,
      'on-primary': theme.onTeal,
    },
  }
}

/** Whatever is typed or chosen in. */
const FIELD = { variant: 'outlined', density: 'compact', hideDetails: 'auto', rounded: 'sm', color: 'primary' } as const

export default defineNuxtPlugin((nuxtApp) => {
  markOverlays()
  const vuetify = createVuetify({
    icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
    theme: {
      // Its style sheet is made in the page: the policy asks for the nonce that this page came with.
      cspNonce: pageNonce(),
      defaultTheme: 'day',
      themes: { day: definition(THEMES.day, false), night: definition(THEMES.night, true) },
    },
    defaults: {
      VMenu: { transition: 'fade-transition', offset: 4 },
      VDialog: { transition: 'fade-transition', maxWidth: 460 },
      VTooltip: { openDelay: 350, location: 'bottom' },
      VBtn: { variant: 'outlined', ripple: false, color: undefined },
      VTextField: { ...FIELD, persistentPlaceholder: true },
      VTextarea: { ...FIELD, persistentPlaceholder: true },
      VCombobox: FIELD,
      VSelect: FIELD,
      VCheckbox: { density: 'compact', hideDetails: 'auto', color: 'primary', ripple: false },
      VRadioGroup: { density: 'compact', hideDetails: 'auto', color: 'primary' },
      VRadio: { ripple: false },
      VTabs: { density: 'compact', height: 36 },
      VList: { density: 'compact', slim: true },
      VTable: { density: 'compact' },
      VProgressLinear: { color: 'primary', height: 6, rounded: true },
    },
  })
  nuxtApp.vueApp.use(vuetify)
})
