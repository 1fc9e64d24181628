import tailwindcss from '@tailwindcss/vite'

export default defineNuxtConfig({
  compatibilityDate: '2026-11-01',
  // The application's own pages are drawn in the browser; public pages are plain HTML from server/routes.
  ssr: false,
  telemetry: false,
  devtools: { enabled: false },
  modules: ['@pinia/nuxt', 'nuxt-auth-utils'],
  css: [
    '@fontsource-variable/hanken-grotesk',
    '@fontsource-variable/bricolage-grotesque',
    '~/assets/main.css',
  ],
  components: [{ path: '~/components', pathPrefix: false }],
  runtimeConfig: {
    // Set by bin/ when the process starts: NUXT_SESSION_PASSWORD, NUXT_SESSION_COOKIE_SECURE.
    session: {
      name: 'satchel',
      password: '',
      maxAge: 60 * 60 * 24 * 30,
      cookie: { secure: true, sameSite: 'lax' },
    },
  },
  app: {
    head: {
      title: 'Satchel',
      htmlAttrs: { lang: 'en' },
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/satchel.svg' }],
    },
  },
  // Between two words in bold and plain there is a space, also where the line breaks.
  vue: { compilerOptions: { whitespace: 'preserve' } },
  vite: { plugins: [tailwindcss()], worker: { format: 'es' } },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  experimental: { payloadExtraction: false },
})
