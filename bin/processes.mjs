import { spawn, spawnSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './prepare.mjs'

const entry = {
  web: join(root, '.output', 'server', 'index.mjs'),
  engine: join(root, '.output', 'processes', 'engine.mjs'),
  world: join(root, '.output', 'processes', 'world.mjs'),
}

/** In this order they end: nothing new comes in, what is under way is finished, and what it is finished with goes last. */
const endsIn = ['web', 'engine', 'world']
/** So long each may take to end by itself, ms; the engine finishes its conversations. */
const PATIENCE = 10_000

/**
 * Starts processes and keeps them running: one that dies is started again after a second. All end, one after the other,
 * when this process is told to, or when the npm that started it is gone.
 */
export function keepRunning(names, env) {
  const running = new Map()
  let stopping = null
  const start = (name) => {
    const child = spawn(process.execPath, ['--enable-source-maps', entry[name]], {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', process.env.SATCHEL_LOG ? 'inherit' : 'ignore', 'inherit'],
    })
    running.set(name, child)
    child.on('exit', (code) => {
      if (stopping) return
      console.error(`The ${name} process ended (${code ?? 'killed'}); it is started again.`)
      setTimeout(() => stopping || start(name), 1_000)
    })
  }
  names.forEach(start)

  async function end(child) {
    if (!child || child.exitCode !== null || child.signalCode !== null) return
    const gone = new Promise((done) => child.once('exit', done))
    child.kill('SIGTERM')
    const late = setTimeout(() => child.kill('SIGKILL'), PATIENCE)
    await gone
    clearTimeout(late)
  }
  async function endAll() {
    for (const name of endsIn) await end(running.get(name))
  }
  const stop = () => (stopping ??= endAll())
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    process.on(signal, () => void stop().then(() => process.exit(0)))
  if (process.env.npm_lifecycle_event) {
    // npm may be ended without a word to what it started: whoever has another parent now has lost it.
    const parent = process.ppid
    setInterval(
      () => process.ppid !== parent && void stop().then(() => process.exit(0)),
      500,
    ).unref()
  }
  return stop
}

/** Brings the data to the present form, if need be, and says how far that is; ends where it can't be done. */
export function migrateData(data) {
  const done = spawnSync(
    process.execPath,
    ['--enable-source-maps', join(root, '.output', 'processes', 'migrate.mjs'), data],
    { stdio: 'inherit' },
  )
  if (done.status !== 0) process.exit(done.status ?? 1)
}

/** What the web process is told: where it listens, and with which code its first owner is let in. */
export function webSettings(data, url, port) {
  return {
    SATCHEL_DATA: data,
    SATCHEL_URL: url,
    PORT: String(port),
    NITRO_PORT: String(port),
    HOST: process.env.HOST ?? '127.0.0.1',
    SATCHEL_SETUP_CODE: setupCode(data),
    NODE_ENV: 'production',
  }
}

/** The code with which the first owner shows that this installation is theirs: `1a2b-3c4d-5e6f-7a8b-9c0d`. */
export const setupCode = (data) => secretOf(data, 'setup').slice(0, 20).match(/.{4}/g).join('-')

/** A secret of this installation, made at its first use and kept in the data folder. */
export function secretOf(data, name) {
  const file = join(data, `${name}.secret`)
  if (!existsSync(file)) {
    mkdirSync(data, { recursive: true })
    writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600, flag: 'wx' })
  }
  return readFileSync(file, 'utf8').trim()
}

/** Waits until a URL answers 200, as long as it takes; says so where that is long. */
export async function waitFor(url) {
  for (let i = 1; ; i++) {
    const answer = await fetch(url).catch(() => null)
    if (answer?.ok) return
    if (i % 150 === 0)
      console.log(`Still starting (${i / 5} s). SATCHEL_LOG=info shows what it is about.`)
    await new Promise((resolve) => setTimeout(resolve, 200))
  }
}
