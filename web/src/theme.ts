import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

/** The server allows only style sheets that carry the number of its answer. */
export const styleNonce = document.querySelector<HTMLMetaElement>('meta[name=style-nonce]')?.content ?? ''

/** Two themes of our own: paper and dark. Colours with a meaning are in styles.css, as custom properties. */
export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: {
    cspNonce: styleNonce,
    defaultTheme: 'paper',
    themes: {
      paper: {
        dark: false,
        colors: { background: '#F4F1E8', surface: '#FFFDF7', primary: '#0A6C74', error: '#B0261E', warning: '#7A5600', success: '#2F6B2F' },
      },
      dark: {
        dark: true,
        colors: { background: '#151B20', surface: '#1D252B', primary: '#5CC4CC', error: '#FF8A80', warning: '#E6B450', success: '#8CCB8C' },
      },
    },
  },
  defaults: {
    VBtn: { variant: 'outlined', size: 'small', ripple: false },
    VTextField: { variant: 'outlined', density: 'compact', hideDetails: true },
    VSelect: { variant: 'outlined', density: 'compact', hideDetails: true },
    VCombobox: { variant: 'outlined', density: 'compact', hideDetails: true },
    VFileInput: { variant: 'outlined', density: 'compact', hideDetails: true, prependIcon: '' },
    VCheckboxBtn: { density: 'compact', ripple: false },
    VRadio: { density: 'compact', ripple: false },
    VTable: { density: 'compact' },
  },
})
