import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

/** The dress of every part, set once: see app/assets/dress.css for ground and type. */
export default defineNuxtPlugin((nuxtApp) => {
  nuxtApp.vueApp.use(
    createVuetify({
      ssr: true,
      icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
      theme: {
        defaultTheme: readLamp(),
        themes: {
          lampOn: {
            dark: false,
            colors: {
              background: '#F5F0E6',
              surface: '#FBF8F1',
              primary: '#1F4D3A',
              secondary: '#5C6B77',
              accent: '#A9812F',
              error: '#A3231F',
              warning: '#B86A00',
              success: '#2E7D4F',
              'on-background': '#23282D',
              'on-surface': '#23282D',
            },
            variables: {
              'medium-emphasis-opacity': 0.85,
              'high-emphasis-opacity': 1,
              'border-color': '#CBC0AA',
              'border-opacity': 1,
            },
          },
          lampOff: {
            dark: true,
            colors: {
              background: '#191C1E',
              surface: '#212527',
              primary: '#8CC7AA',
              'on-primary': '#11251B',
              secondary: '#93A2AE',
              accent: '#CFA651',
              error: '#F08A83',
              'on-error': '#2A0B09',
              warning: '#E8A24A',
              success: '#7CC596',
              'on-background': '#ECE5D8',
              'on-surface': '#ECE5D8',
            },
            variables: {
              'medium-emphasis-opacity': 0.85,
              'high-emphasis-opacity': 1,
              'border-color': '#42494C',
              'border-opacity': 1,
            },
          },
        },
      },
      defaults: {
        VBtn: { variant: 'flat', rounded: 'sm', ripple: false },
        VTextField: { variant: 'underlined', color: 'primary', hideDetails: 'auto' },
        VTextarea: { variant: 'underlined', color: 'primary', hideDetails: 'auto', autoGrow: true, rows: 1 },
        VSelect: { variant: 'underlined', color: 'primary', hideDetails: 'auto' },
        VAutocomplete: { variant: 'underlined', color: 'primary', hideDetails: 'auto' },
        VCheckbox: { color: 'primary', hideDetails: 'auto', density: 'comfortable' },
        VCard: { rounded: 'sm', flat: true },
        VDialog: { maxWidth: 640 },
      },
    }),
  )
})

/** The lamp as it was left on this device. */
function readLamp(): 'lampOn' | 'lampOff' {
  try {
    return localStorage.getItem('echoppe.lamp') === 'off' ? 'lampOff' : 'lampOn'
  } catch {
    return 'lampOn'
  }
}
