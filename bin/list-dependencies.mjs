/**
 * Writes docs/dependencies.md: every package that reaches production, with its version and licence. Run it after
 * `npm run build`, whenever package-lock.json has changed: node bin/list-dependencies.mjs
 */
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './prepare.mjs'

/** These make the build and are in nothing that runs. What Nuxt brings into the pages and the server is found there. */
const buildTools = ['nuxt', '@pinia/nuxt', 'tailwindcss', '@tailwindcss/vite']
/** What Nuxt puts into the pages. */
const inPages = ['vue-router', '@unhead/vue', 'ofetch', 'hookable', 'ufo', 'defu', 'destr', 'klona']

const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'))
const { dependencies } = packages['']
const found = new Map()

const direct = Object.keys(dependencies).filter((name) => !buildTools.includes(name))
for (const name of [...direct, ...inPages, ...inServer(), ...tracedBeside()]) take('', name)

const lines = [...found.values()]
  .sort((a, b) => a.name.localeCompare(b.name) || a.version.localeCompare(b.version))
  .map(({ name, version, licence }) => `| ${name} | ${version} | ${licence} |`)
writeFileSync(
  join(root, 'docs', 'dependencies.md'),
  `# What reaches production

Made by \`node bin/list-dependencies.mjs\` from the build and package-lock.json: ${lines.length} packages. Versions are exact, and
nothing runs at install but the scripts named under \`allowScripts\` in package.json.

| package | version | licence |
|---|---|---|
${lines.join('\n')}
`,
)
console.log(`${lines.length} packages.`)

/** Takes a package as the one at \`from\` finds it, with all that it needs. */
function take(from, name) {
  const path = placeOf(from, name)
  if (!path || found.has(path)) return
  const entry = packages[path]
  const licence = licenceOf(path)
  // Made for another kind of machine.
  if (licence === null) return
  found.set(path, { name: path.split('node_modules/').at(-1), version: entry.version, licence })
  for (const needed of Object.keys({ ...entry.dependencies, ...entry.optionalDependencies }))
    take(path, needed)
}

function placeOf(from, name) {
  for (let at = from; ; at = at.slice(0, Math.max(0, at.lastIndexOf('/node_modules/')))) {
    const path = `${at ? `${at}/` : ''}node_modules/${name}`
    if (packages[path]) return path
    if (at === '') return null
  }
}

function licenceOf(path) {
  const file = join(root, path, 'package.json')
  if (!existsSync(file)) return null
  const { license, licenses } = JSON.parse(readFileSync(file, 'utf8'))
  return String(license?.type ?? license ?? licenses?.[0]?.type ?? 'not said')
}

/** Packages whose code stands in the server's own files, by their source maps. */
function inServer() {
  const names = new Set()
  const walk = (folder) => {
    for (const name of readdirSync(folder)) {
      const path = join(folder, name)
      if (name === 'node_modules') continue
      if (statSync(path).isDirectory()) walk(path)
      else if (name.endsWith('.map'))
        for (const source of JSON.parse(readFileSync(path, 'utf8')).sources) {
          const of = /node_modules\/((?:@[^/]+\/)?[^/.][^/]*)\/(?!.*node_modules)/.exec(source)?.[1]
          // Nuxt's and Nitro's own code is build tools with a part that runs; what that needs is named by itself.
          if (of && of !== 'nitropack' && of !== '@nuxt/nitro-server') names.add(of)
        }
    }
  }
  walk(join(root, '.output', 'server'))
  return names
}

/** Packages that the build put beside the server. */
function tracedBeside() {
  const folder = join(root, '.output', 'server', 'node_modules')
  return readdirSync(folder)
    .filter((name) => !name.startsWith('.'))
    .flatMap((name) =>
      name.startsWith('@') ? readdirSync(join(folder, name)).map((of) => `${name}/${of}`) : [name],
    )
}
