/**
 * All tests: installs what is missing, checks style, types and the build, and runs units, whole
 * processes and the browser. The last line is "N passed, N failed". Words after it go to Vitest.
 */
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buildIfStale, checkNode, installPackages, root } from './prepare.mjs'

checkNode()
installPackages()
installChromium()

let passed = 0
let failed = 0
await check('types of Nuxt', 'nuxt', ['prepare'])
await twoAtATime(
  [
    ['lint', 'eslint', '.', '--max-warnings', '0'],
    ['types of the pages', 'vue-tsc', '--noEmit', '-p', '.nuxt/tsconfig.app.json'],
    ['types of the server', 'vue-tsc', '--noEmit', '-p', '.nuxt/tsconfig.server.json'],
    ['format', 'prettier', '--check', '.', '--log-level', 'warn'],
    ['types of core, database, engine, world', 'tsc', '-p', 'tsconfig.node.json'],
    ['types of what stands on other pages', 'tsc', '-p', 'tsconfig.embed.json'],
  ].map(
    ([name, command, ...args]) =>
      () =>
        check(name, command, args),
  ),
)
buildIfStale()
passed++
runVitest()
console.log(`${passed} passed, ${failed} failed`)
process.exit(failed ? 1 : 0)

/** Runs one program of the project's, says how it went, and counts it. */
async function check(name, command, args) {
  const child = spawn(join(root, 'node_modules', '.bin', command), args, {
    cwd: root,
    env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1' },
  })
  let said = ''
  child.stdout.on('data', (piece) => (said += piece))
  child.stderr.on('data', (piece) => (said += piece))
  const code = await new Promise((done) => {
    child.on('error', () => done(1))
    child.on('close', done)
  })
  if (code === 0) passed++
  else {
    failed++
    console.log(said)
  }
  console.log(`${code === 0 ? 'passed' : 'FAILED'}: ${name}`)
}

/** Two of them at any time, for two processors. */
async function twoAtATime(tasks) {
  const waiting = [...tasks]
  const work = async () => {
    for (let next = waiting.shift(); next; next = waiting.shift()) await next()
  }
  await Promise.all([work(), work()])
}

function runVitest() {
  const folder = mkdtempSync(join(tmpdir(), 'satchel-tests-'))
  const report = join(folder, 'report.json')
  const vitest = join(root, 'node_modules', 'vitest', 'vitest.mjs')
  spawnSync(
    process.execPath,
    [
      vitest,
      'run',
      '--reporter=default',
      '--reporter=json',
      `--reporter=${join(root, 'bin', 'second-tries.mjs')}`,
      `--outputFile.json=${report}`,
      ...process.argv.slice(2),
    ],
    {
      cwd: root,
      stdio: 'inherit',
      // What tests leave lying about goes with the folder.
      env: { ...process.env, NO_COLOR: '1', TMPDIR: folder },
    },
  )
  if (existsSync(report)) {
    const { numPassedTests, numFailedTests, numFailedTestSuites, success } = JSON.parse(
      readFileSync(report, 'utf8'),
    )
    passed += numPassedTests
    // A file that can't even be read has no test that failed.
    failed += Math.max(numFailedTests, success ? 0 : Math.min(1, numFailedTestSuites), 0)
  } else failed++
  rmSync(folder, { recursive: true, force: true })
}

/** Debian's Chromium, installed where that may be done; otherwise a sentence says what to install. */
function installChromium() {
  if (existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium')) return
  const mayInstall = process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')
  if (!mayInstall) {
    console.error(
      'The browser tests need Chromium. Install it (Debian: apt-get install chromium), or name one with CHROMIUM=/path.',
    )
    process.exit(1)
  }
  console.log('Installing Chromium.')
  const apt = (...args) =>
    spawnSync('apt-get', args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    })
  apt('update', '-qq')
  if (apt('install', '-y', '-qq', '--no-install-recommends', 'chromium').status !== 0)
    process.exit(1)
}
