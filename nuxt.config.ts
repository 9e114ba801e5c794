import { fileURLToPath } from 'node:url'
import vuetify, { transformAssetUrls } from 'vite-plugin-vuetify'

const fontFolder = (weight: string): string =>
  fileURLToPath(new URL(`./node_modules/@expo-google-fonts/atkinson-hyperlegible-next/${weight}`, import.meta.url))

export default defineNuxtConfig({
  compatibilityDate: '2026-01-01',
  modules: [
    '@pinia/nuxt',
    'nuxt-auth-utils',
    '@nuxt/eslint',
    (_options, nuxt) => {
      nuxt.hooks.hook('vite:extendConfig', (config) => {
        config.plugins?.push(vuetify({ autoImport: true }))
      })
    },
  ],
  ssr: true,
  // Every screen is drawn in the browser; the server answers with data.
  routeRules: { '/**': { ssr: false } },
  buildDir: '.nuxt',
  telemetry: false,
  devtools: { enabled: false },
  css: [
    'vuetify/styles',
    '@fontsource-variable/atkinson-hyperlegible-next/index.css',
    '@fontsource-variable/atkinson-hyperlegible-mono/index.css',
    '~/assets/dress.css',
  ],
  build: { transpile: ['vuetify'] },
  imports: {
    // Its short names are its own: none of them is Vue's h.
    transform: { exclude: [/messages\/generated/] },
    imports: [
      { from: '@vueuse/core', name: 'useEventListener' },
      { from: '@vueuse/core', name: 'watchDebounced' },
    ],
  },
  components: [{ path: '~/components', pathPrefix: false }],
  app: {
    head: {
      title: 'Echoppe',
      htmlAttrs: { lang: 'en-GB' },
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1' },
        { name: 'theme-color', content: '#1F4D3A' },
      ],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/mark.svg' }],
    },
  },
  runtimeConfig: {
    session: {
      name: 'echoppe',
      password: '',
      // The longest that any session lasts; the server ends it earlier when nobody is there.
      maxAge: 60 * 60 * 24 * 30,
      cookie: { sameSite: 'strict', secure: true, httpOnly: true },
    },
  },
  nitro: {
    compressPublicAssets: { gzip: true, brotli: true },
    serverAssets: [
      { baseName: 'font-regular', dir: fontFolder('400Regular') },
      { baseName: 'font-bold', dir: fontFolder('700Bold') },
    ],
  },
  // Who is signed in our own session says; asked twice, every screen would wait for both.
  auth: { loadStrategy: 'none' },
  // What a link leads to is fetched when a hand is on it, not while the screen it stands on is still being drawn.
  experimental: { defaults: { nuxtLink: { prefetchOn: { interaction: true, visibility: false } } } },
  hooks: {
    // Named in the first page, what other screens need would be fetched before the one that was asked for.
    'build:manifest': (manifest) => {
      for (const chunk of Object.values(manifest)) chunk.prefetch = false
    },
  },
  vite: {
    build: { cssMinify: 'lightningcss' },
    worker: { format: 'es' },
    vue: { template: { transformAssetUrls } },
  },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
})
