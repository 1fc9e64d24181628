/** Builds web (Nuxt), the scripts of sign-ups, and, each as one file, the engine, the practice world and the demo's maker. */
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { build } from 'esbuild'
import { root, runOrExit, stampBuild } from './prepare.mjs'

rmSync(join(root, '.output'), { recursive: true, force: true })
// What stands on other people's pages, and beside a form on its own page; see embed/.
await build({
  absWorkingDir: root,
  entryPoints: {
    forms: 'embed/forms.ts',
    seen: 'embed/seen.ts',
    desk: 'embed/desk.ts',
    'desk-kept': 'embed/desk-kept.ts',
  },
  outdir: 'public/s',
  bundle: true,
  minify: true,
  platform: 'browser',
  target: 'es2022',
  format: 'iife',
  logLevel: 'warning',
})
// Loaded apart, once somebody begins to fill in a form.
await build({
  absWorkingDir: root,
  entryPoints: { work: 'embed/work.ts' },
  outdir: 'public/s',
  bundle: true,
  minify: true,
  platform: 'browser',
  target: 'es2022',
  format: 'esm',
  logLevel: 'warning',
})
runOrExit('npx', ['nuxt', 'build'], { quiet: !process.argv.includes('--verbose') })
await build({
  absWorkingDir: root,
  entryPoints: {
    engine: 'engine/main.ts',
    jobs: 'engine/jobs-main.ts',
    asker: 'server/asker/main.ts',
    apart: 'cases/apart/main.ts',
    world: 'world/main.ts',
    demo: 'demo/main.ts',
    backup: 'database/backup.ts',
    'new-key': 'database/new-key.ts',
    migrate: 'database/migrate-main.ts',
  },
  outdir: '.output/processes',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  splitting: true,
  chunkNames: 'parts/[name]-[hash]',
  platform: 'node',
  target: 'node20',
  format: 'esm',
  packages: 'external',
  sourcemap: true,
  logLevel: 'warning',
})
stampBuild()
console.log('Built.')
