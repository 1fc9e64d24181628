/** Measures what is promised: npm run bench [-- NAME] */
import { join } from 'node:path'
import { buildIfStale, checkNode, installPackages, root, runOrExit } from './prepare.mjs'

checkNode()
installPackages()
buildIfStale()
runOrExit(process.execPath, [
  '--import',
  'tsx',
  join(root, 'bench', 'main.ts'),
  ...process.argv.slice(2),
])
