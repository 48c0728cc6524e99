/** Vuetify, themed once: colours, corners and densities are set here and nowhere else. */
import 'vuetify/styles/core'
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'
import { DARK, LEDGE, LIGHT } from './colours.ts'
import type { Colours } from './colours.ts'

/** Our names plus those that Vuetify's own components ask for. */
const withVuetifyNames = (set: Colours) => ({
  ...set,
  background: set.desk,
  surface: set.sheet,
  'on-background': set.ink,
  'on-surface': set.ink,
  primary: set.board,
  'on-primary': set.chalk,
  error: set.brick,
  info: set.sky,
  success: set.lichen,
  warning: set.ochre,
})

/** `nonce` is the page's own: the content policy lets no other style in. */
export function makeVuetify(nonce: string | undefined) {
  return createVuetify({
    icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
    theme: {
      ...(nonce === undefined ? {} : { cspNonce: nonce }),
      defaultTheme: 'system',
      themes: {
        light: { dark: false, colors: withVuetifyNames(LIGHT) },
        dark: { dark: true, colors: withVuetifyNames(DARK) },
        ledge: { dark: true, colors: withVuetifyNames(LEDGE) },
      },
    },
    defaults: {
      VBtn: { variant: 'flat', ripple: false, rounded: 'sm', color: 'board', height: 38 },
      VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto', rounded: 'sm' },
      VTextarea: {
        variant: 'outlined',
        density: 'compact',
        hideDetails: 'auto',
        rounded: 'sm',
        rows: 3,
        autoGrow: true,
      },
      VSelect: { variant: 'outlined', density: 'compact', hideDetails: 'auto', rounded: 'sm' },
      VDialog: { maxWidth: 640, transition: false },
      VMenu: { transition: false },
      VList: { density: 'compact' },
    },
  })
}
