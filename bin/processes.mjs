import { spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './prepare.mjs'

const entry = {
  web: join(root, '.output', 'server', 'index.mjs'),
  engine: join(root, '.output', 'processes', 'engine.mjs'),
  world: join(root, '.output', 'processes', 'world.mjs'),
}

/**
 * Starts processes and keeps them running: one that dies is started again after a second. All end
 * with this process. Returns a function that ends them.
 */
export function keepRunning(names, env) {
  const running = new Map()
  let stopping = false
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
  const stop = () => {
    stopping = true
    for (const child of running.values()) child.kill('SIGTERM')
    setTimeout(() => process.exit(0), 4_000).unref()
    return Promise.all(
      [...running.values()].map(
        (child) => child.exitCode !== null || new Promise((done) => child.once('exit', done)),
      ),
    )
  }
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.once(signal, () => void stop().then(() => process.exit(0)))
  return stop
}

/** What the web process is told: where it listens, and the password that seals its cookies. */
export function webSettings(data, url, port) {
  return {
    SATCHEL_DATA: data,
    SATCHEL_URL: url,
    PORT: String(port),
    NITRO_PORT: String(port),
    HOST: process.env.HOST ?? '127.0.0.1',
    NUXT_SESSION_PASSWORD: secretOf(data, 'session'),
    NUXT_SESSION_COOKIE_SECURE: String(url.startsWith('https:')),
    NODE_ENV: 'production',
  }
}

/** A secret of this installation, made at its first use and kept in the data folder. */
export function secretOf(data, name) {
  const file = join(data, `${name}.secret`)
  if (!existsSync(file)) {
    mkdirSync(data, { recursive: true })
    writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600, flag: 'wx' })
  }
  return readFileSync(file, 'utf8').trim()
}

/** Waits until a URL answers 200; says what to do where it does not. */
export async function waitFor(url, seconds) {
  for (let i = 0; i < seconds * 5; i++) {
    const answer = await fetch(url).catch(() => null)
    if (answer?.ok) return
    await new Promise((resolve) => setTimeout(resolve, 200))
  }
  throw new Error(`${url} does not answer. Start again with SATCHEL_LOG=info to see why.`)
}
