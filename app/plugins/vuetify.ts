// Its utility classes are not used: seven eighths of its style sheet stay away.
import 'vuetify/styles/core'
import { createVuetify } from 'vuetify'
import { ownWord } from '../theme/own-style'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

const colours = (surface: string, ink: string, madder: string, verdigris: string, marigold: string) => ({
  'background': surface,
  'surface': surface,
  'on-surface': ink,
  'on-background': ink,
  'primary': madder,
  'secondary': verdigris,
  'error': marigold,
  'warning': marigold,
})

export default defineNuxtPlugin((app) => {
  app.vueApp.use(
    createVuetify({
      icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
      theme: {
        cspNonce: ownWord(),
        defaultTheme: 'day',
        themes: {
          day: { dark: false, colors: colours('#f8f4ec', '#2c2622', '#9c3540', '#1d645d', '#7c530a') },
          evening: { dark: true, colors: colours('#2a2522', '#efe7dc', '#e2868a', '#78c8bd', '#e7b55a') },
        },
      },
      defaults: {
        VTextField: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto', color: 'primary' },
        VTextarea: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto', color: 'primary' },
        VSelect: { variant: 'outlined', density: 'comfortable', hideDetails: 'auto', color: 'primary' },
        VCheckbox: { density: 'comfortable', hideDetails: 'auto', color: 'primary' },
        VDialog: { maxWidth: 480 },
      },
    }),
  )
})
