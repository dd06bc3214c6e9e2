import { fileURLToPath } from 'node:url'
import vuetify, { transformAssetUrls } from 'vite-plugin-vuetify'

/** Packages of the page, named so that the first visit in development does not reload. */
const CLIENT_PACKAGES = [
  '@codemirror/autocomplete',
  '@codemirror/commands',
  '@codemirror/state',
  '@codemirror/view',
  '@mdi/js',
  'chart.js',
  'comlink',
  'idb-keyval',
  'katex',
  'vue-draggable-plus',
  'zod',
]

/** Checked by tsconfig.core.json: the tests of core and server, the interface tests and what is no part of the page. */
const TESTS = ['../**/*.test.ts', '../e2e/**', '../playwright.config.ts', '../bench/**', '../cli/**']

export default defineNuxtConfig({
  compatibilityDate: '2026-01-01',
  telemetry: false,
  devtools: { enabled: false },
  // The page is an application, not a document: it is drawn in the browser, where its worker lives.
  ssr: false,
  modules: [
    '@pinia/nuxt',
    'nuxt-security',
    (_options, nuxt) => {
      nuxt.hooks.hook('vite:extendConfig', (config) => {
        config.plugins?.push(vuetify({ autoImport: true }))
      })
    },
  ],
  build: { transpile: ['vuetify'] },
  css: [
    'vuetify/styles',
    'katex/dist/katex.min.css',
    '@fontsource-variable/fraunces/index.css',
    '@fontsource-variable/fraunces/wght-italic.css',
    '@fontsource-variable/atkinson-hyperlegible-next/index.css',
    '@fontsource-variable/source-code-pro/index.css',
    '~/theme/base.css',
    '~/theme/controls.css',
    '~/theme/forced.css',
  ],
  app: {
    head: {
      title: 'Ornate Phasor',
      htmlAttrs: { lang: 'en' },
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1' },
        { name: 'description', content: 'A ledger that answers: complex numbers, phasors and the complex plane.' },
      ],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/mark.svg' }],
    },
  },
  components: [{ path: '~/components', pathPrefix: false }],
  hooks: {
    // What a page does not need is not fetched with it: leaves are fetched when there is nothing else to do.
    'build:manifest': (manifest) => {
      for (const chunk of Object.values(manifest)) chunk.prefetch = false
    },
  },
  // The folio's page is fetched once somebody goes for one, not for every card of the shelf in sight.
  experimental: { defaults: { nuxtLink: { prefetchOn: { visibility: false, interaction: true } } } },
  typescript: {
    strict: true,
    // The page's own tests are checked with the page.
    tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true, types: ['node', 'jest'] } },
    sharedTsConfig: { exclude: TESTS },
    nodeTsConfig: { exclude: TESTS },
  },
  vite: {
    vue: { template: { transformAssetUrls } },
    worker: { format: 'es' },
    build: { assetsInlineLimit: 0 },
    optimizeDeps: { include: CLIENT_PACKAGES },
  },
  // In development Nuxt has a listener of its own.
  $production: { nitro: { entry: fileURLToPath(new URL('server/entry.ts', import.meta.url)) } },
  nitro: {
    errorHandler: '~~/server/error',
    // Brotli and gzip beside every file: what crosses the wire is a quarter.
    compressPublicAssets: { brotli: true, gzip: true },
    typescript: { tsConfig: { exclude: TESTS } },
  },
  security: {
    rateLimiter: false,
    corsHandler: false,
    removeLoggers: false,
    // The server checks sizes itself, with a sentence; see server/utils/api.ts.
    requestSizeLimiter: false,
    xssValidator: false,
    headers: {
      crossOriginEmbedderPolicy: false,
      strictTransportSecurity: false,
      contentSecurityPolicy: {
        'default-src': ["'self'"],
        'base-uri': ["'none'"],
        'connect-src': ["'self'"],
        'font-src': ["'self'"],
        'form-action': ["'self'"],
        'frame-ancestors': ["'none'"],
        'img-src': ["'self'", 'data:', 'blob:'],
        'object-src': ["'none'"],
        'script-src': ["'self'", "'nonce-{{nonce}}'", "'strict-dynamic'"],
        'script-src-attr': ["'none'"],
        'style-src': ["'self'", "'nonce-{{nonce}}'"],
        // Attributes only: typeset mathematics carries its heights in them.
        'style-src-attr': ["'unsafe-inline'"],
        'worker-src': ["'self'"],
        'upgrade-insecure-requests': false,
      },
    },
  },
})
