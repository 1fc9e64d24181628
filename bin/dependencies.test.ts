import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'

interface Lock {
  packages: Record<
    string,
    { version?: string; hasInstallScript?: boolean; dependencies?: Record<string, string> }
  >
}
const manifest = JSON.parse(readFileSync('package.json', 'utf8')) as {
  dependencies: Record<string, string>
  devDependencies: Record<string, string>
  allowScripts: Record<string, boolean>
}
const { packages } = JSON.parse(readFileSync('package-lock.json', 'utf8')) as Lock
const listed = readFileSync('docs/dependencies.md', 'utf8')

test('versions are exact, and no file names where packages come from', () => {
  for (const [name, version] of Object.entries({
    ...manifest.dependencies,
    ...manifest.devDependencies,
  }))
    expect(version, name).toMatch(/^\d+\.\d+\.\d+$/)
  expect(readFileSync('package-lock.json', 'utf8')).not.toMatch(/"resolved"/)
})

test('nothing runs at install but what is named', () => {
  const scripts = Object.entries(packages)
    .filter(([, { hasInstallScript }]) => hasInstallScript)
    .map(([path]) => path.split('node_modules/').at(-1)!)
  expect(scripts.filter((name) => !manifest.allowScripts[name])).toEqual([])
  expect(scripts.length).toBeGreaterThan(0)
})

test('what reaches production is listed, as it is installed, with a licence that lets it', () => {
  const buildTools = ['nuxt', '@pinia/nuxt', 'tailwindcss', '@tailwindcss/vite']
  for (const [name, version] of Object.entries(manifest.dependencies))
    if (!buildTools.includes(name)) expect(listed).toContain(`| ${name} | ${version} |`)
  const rows = [...listed.matchAll(/^\| (\S+) \| (\d\S*) \| (.+) \|$/gm)]
  expect(rows.length).toBeGreaterThan(100)
  const versions = new Set(
    Object.entries(packages).map(
      ([path, { version }]) => `${path.split('node_modules/').at(-1)} ${version}`,
    ),
  )
  for (const [, name, version, licence] of rows) {
    expect(versions, 'run node bin/list-dependencies.mjs').toContain(`${name} ${version}`)
    expect(licence).toMatch(
      /MIT|ISC|BSD|Apache-2\.0|0BSD|OFL|BlueOak|CC0|Unlicense|CC-BY-4|Python-2\.0|LGPL|MPL|EUPL|Zlib/,
    )
  }
})
