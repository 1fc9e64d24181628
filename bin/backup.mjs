/** Backs the database up while Satchel runs: npm run backup -- FILE */
import { spawnSync } from 'node:child_process'
import { join, resolve } from 'node:path'
import { buildIfStale, checkNode, installPackages, root } from './prepare.mjs'

const file = process.argv[2]
if (!file) {
  console.error('Say where to: npm run backup -- FILE')
  process.exit(1)
}
checkNode()
installPackages()
buildIfStale()
const data = resolve(process.env.SATCHEL_DATA ?? 'data')
const { status } = spawnSync(
  process.execPath,
  [join(root, '.output', 'processes', 'backup.mjs'), data, resolve(file)],
  { stdio: 'inherit' },
)
process.exit(status ?? 1)
