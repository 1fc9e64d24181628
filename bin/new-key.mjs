/** Takes a new key into use by which secrets are sealed, also while Satchel runs: npm run new-key */
import { spawnSync } from 'node:child_process'
import { join, resolve } from 'node:path'
import { buildIfStale, checkNode, installPackages, root } from './prepare.mjs'

checkNode()
installPackages()
buildIfStale()
const data = resolve(process.env.SATCHEL_DATA ?? 'data')
const { status } = spawnSync(
  process.execPath,
  [join(root, '.output', 'processes', 'new-key.mjs'), data],
  { stdio: 'inherit' },
)
process.exit(status ?? 1)
