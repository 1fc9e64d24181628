import { createHash } from 'node:crypto'
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

/** The project's folder. */
export const root = dirname(dirname(fileURLToPath(import.meta.url)))

/** Ends with a sentence where this Node is too old. */
export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major > 20 || (major === 20 && minor >= 19)) return
  console.error(`Satchel needs Node 20.19 or newer; this is ${process.versions.node}.`)
  process.exit(1)
}

/** Installs the packages where they are missing or not those of the lock file. */
export function installPackages() {
  const stamp = join(root, 'node_modules', '.satchel-lock')
  const wanted = hashOf([join(root, 'package-lock.json')])
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  console.log('Installing packages. The database driver compiles for some minutes the first time.')
  runOrExit('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'])
  writeFileSync(stamp, wanted)
}

/** Builds all processes where there is no build of these sources. */
export function buildIfStale() {
  const stamp = join(root, '.output', 'built-from')
  const wanted = hashOf(sourceFiles())
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  console.log('Building; this takes about a minute.')
  runOrExit(process.execPath, [join(root, 'bin', 'build.mjs')])
}

/** Marks the build as one of the present sources. */
export function stampBuild() {
  mkdirSync(join(root, '.output'), { recursive: true })
  writeFileSync(join(root, '.output', 'built-from'), hashOf(sourceFiles()))
}

/** Runs a command in the project's folder; ends the process with its code where it fails. */
export function runOrExit(command, args, options = {}) {
  const { quiet, ...rest } = options
  const result = spawnSync(command, args, {
    cwd: root,
    stdio: quiet ? ['ignore', 'pipe', 'pipe'] : 'inherit',
    env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1' },
    ...rest,
  })
  if (result.status === 0) return
  if (quiet) process.stderr.write(`${result.stdout}${result.stderr}`)
  process.exit(result.status ?? 1)
}

function sourceFiles() {
  const folders = [
    'app',
    'server',
    'shared',
    'core',
    'database',
    'cases',
    'embed',
    'engine',
    'world',
    'demo',
    'public',
  ]
  const found = ['nuxt.config.ts', 'package-lock.json', 'bin/build.mjs'].map((name) =>
    join(root, name),
  )
  const walk = (folder) => {
    for (const name of readdirSync(folder).sort()) {
      const path = join(folder, name)
      if (statSync(path).isDirectory()) walk(path)
      else if (!name.endsWith('.test.ts')) found.push(path)
    }
  }
  for (const folder of folders) if (existsSync(join(root, folder))) walk(join(root, folder))
  return found
}

function hashOf(files) {
  const hash = createHash('sha256')
  for (const file of files)
    hash.update(file.slice(root.length)).update('\0').update(readFileSync(file)).update('\0')
  return hash.digest('hex')
}
