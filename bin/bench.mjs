/**
 * Measures what is promised: npm run bench [-- NAME]. What is measured is made as what ships is: the measures are built with
 * the code they call, since code that is translated as it is loaded looks its imports up at each call, and takes up to twice
 * as long.
 */
import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { buildIfStale, checkNode, installPackages, root, runOrExit } from './prepare.mjs'

checkNode()
installPackages()
buildIfStale()
// There now, where it was not before.
const { build } = await import('esbuild')
const outdir = join(root, '.output', 'bench')
await build({
  absWorkingDir: root,
  entryPoints: readdirSync(join(root, 'bench')).map((name) => `bench/${name}`),
  outdir,
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  packages: 'external',
  logLevel: 'warning',
})
runOrExit(process.execPath, [join(outdir, 'main.mjs'), ...process.argv.slice(2)])
