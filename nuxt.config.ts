import { readdirSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import { handlerOfFile, permissionGaps } from './core/team'

/** A handler of the pages that says nowhere who may call it (core/team/permissions.ts) does not build. */
function refuseUnnamedHandlers() {
  const files = readdirSync(fileURLToPath(new URL('./server/api', import.meta.url)), {
    recursive: true,
  })
  const handlers = files
    .map(String)
    .filter((file) => file.endsWith('.ts') && !file.startsWith('v1/'))
    .map((file) => handlerOfFile(`api/${file}`))
  const { missing, idle } = permissionGaps(handlers)
  if (missing.length || idle.length)
    throw new Error(
      `core/team/permissions.ts does not say who may call: ${missing.join(', ') || 'none'}; it names handlers that are gone: ${idle.join(', ') || 'none'}.`,
    )
}

export default defineNuxtConfig({
  compatibilityDate: '2026-11-01',
  // The application's own pages are drawn in the browser; public pages are plain HTML from server/routes.
  ssr: false,
  telemetry: false,
  devtools: { enabled: false },
  modules: ['@pinia/nuxt'],
  hooks: { 'nitro:init': refuseUnnamedHandlers },
  css: [
    '@fontsource-variable/hanken-grotesk',
    '@fontsource-variable/bricolage-grotesque',
    '~/assets/main.css',
  ],
  components: [{ path: '~/components', pathPrefix: false }],
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
  // Other sites load it as a module, which a browser does only where it may (Fetch, 3.2).
  routeRules: { '/s/work.js': { headers: { 'Access-Control-Allow-Origin': '*' } } },
  experimental: { payloadExtraction: false },
})
