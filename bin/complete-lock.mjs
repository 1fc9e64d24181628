/**
 * Adds to package-lock.json the packages of other platforms that the registry at hand did not
 * offer, so that `npm ci` takes the file as complete. Run it after `npm install NAME`.
 */
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './prepare.mjs'

const systems = [
  'android',
  'darwin',
  'freebsd',
  'linux',
  'win32',
  'openbsd',
  'netbsd',
  'sunos',
  'aix',
  'openharmony',
]
const file = join(root, 'package-lock.json')
const lock = JSON.parse(readFileSync(file, 'utf8'))
let added = 0
for (const [path, entry] of Object.entries(lock.packages)) {
  delete entry.resolved
  for (const [name, version] of Object.entries(entry.optionalDependencies ?? {})) {
    const wanted = version.replace(/^[^\d]*/, '')
    const there = found(path, name)
    if (there && (there.version === wanted || /^[\^~>]/.test(version))) continue
    const parts = name.split(/[-/]/)
    const os = systems.filter((system) => parts.includes(system))
    const wasm = parts.some((part) => part.startsWith('wasm32'))
    lock.packages[`${there ? `${path}/` : ''}node_modules/${name}`] = {
      version: wanted,
      optional: true,
      ...(wasm ? { cpu: ['wasm32'] } : { os: os.length ? os : ['none'] }),
    }
    added++
  }
}
lock.packages = Object.fromEntries(
  Object.entries(lock.packages).sort(([a], [b]) => (a < b ? -1 : 1)),
)
writeFileSync(file, `${JSON.stringify(lock, null, 2)}\n`)
console.log(`${added} packages of other platforms added.`)

/** The entry that a dependency of the package at `path` resolves to, there or further up. */
function found(path, name) {
  for (let at = path; ; at = at.slice(0, Math.max(0, at.lastIndexOf('/node_modules/')))) {
    const entry = lock.packages[`${at ? `${at}/` : ''}node_modules/${name}`]
    if (entry || at === '') return entry
  }
}
