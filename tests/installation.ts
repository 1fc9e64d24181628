import { spawn, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { openDatabase, closeDatabase, q, run, type Database } from '../database'
import { readClock, updateAccount, writeClock, addUser } from '../database/account'
import { addApiToken } from '../database/imports'
import { addList } from '../database/people'
import { fillAccount } from '../database/made-up'
import { providers } from '../world/post-office/providers'
import { WAITS } from './patience'
import { copyDemo } from './demos'
import { freePorts } from './ports'

type ProcessName = 'web' | 'engine' | 'world'
const entries: Record<ProcessName, string> = {
  web: '.output/server/index.mjs',
  engine: '.output/processes/engine.mjs',
  world: '.output/processes/world.mjs',
}

/** With it the first owner of an empty installation shows that it is theirs. */
export const setupCode = '1a2b-3c4d-5e6f-7a8b-9c0d'

/** A whole Satchel on a data folder and ports of its own, for one test. */
export interface Installation {
  url: string
  enterUrl: string
  worldUrl: string
  data: string
  /** What its processes are told when they start. */
  env: Record<string, string | undefined>
  /** The same file the processes work on. */
  db: Database
  start(name: ProcessName): Promise<void>
  /** Ends a process at once (SIGKILL), and waits until it is gone. */
  kill(name: ProcessName): Promise<void>
  stop(): Promise<void>
}

/**
 * Prepares an installation. With `demo` it is the demo account of that many people; else an
 * account with one list and nobody on it; with `empty` there is not even that.
 */
export async function install(
  options: {
    demo?: number
    empty?: boolean
    /** Nobody reads what comes, and every mailbox is there: for tests of what happens without anybody's doing. */
    unread?: boolean
    env?: Record<string, string>
  } = {},
): Promise<Installation> {
  const data = mkdtempSync(join(tmpdir(), 'satchel-test-'))
  const [webPort, smtpPort, worldPort, dnsPort, imapPort] = await freePorts(5)
  const url = `http://127.0.0.1:${webPort}`
  const worldUrl = `http://127.0.0.1:${worldPort}`
  const [enterKey, reportsKey] = [secret(), secret()]
  if (options.demo) {
    copyDemo(options.demo, data)
  }
  const db = openDatabase(data)
  if (options.demo) settleDemo(db, imapPort!)
  if (!options.demo && !options.empty) smallAccount(db)
  // Whether a mailbox is full hangs on the day, which no test should.
  const habits = { full: 0, ...(options.unread ? { reads: 0, away: 0, unknown: 0 } : {}) }
  const all = Object.fromEntries(providers.map(({ domain }) => [domain, habits]))
  writeFileSync(join(data, 'providers.json'), JSON.stringify(all))
  // Nobody sits before it to call anything back; tests of that set it themselves.
  updateAccount(db, { callback_seconds: 0 })
  const env: Record<string, string | undefined> = {
    ...process.env,
    NODE_ENV: 'production',
    SATCHEL_DATA: data,
    SATCHEL_URL: url,
    SATCHEL_SMTP_URL: `smtp://127.0.0.1:${smtpPort}`,
    SATCHEL_WEB_PROXY: worldUrl,
    SATCHEL_MAY_REACH: `127.0.0.1:${imapPort}`,
    SATCHEL_DNS: `127.0.0.1:${dnsPort}`,
    SATCHEL_ENTER_KEY: enterKey,
    SATCHEL_REPORTS_KEY: reportsKey,
    PORT: String(webPort),
    NITRO_PORT: String(webPort),
    HOST: '127.0.0.1',
    SATCHEL_SETUP_CODE: setupCode,
    WORLD_SMTP_PORT: String(smtpPort),
    WORLD_WEB_PORT: String(worldPort),
    WORLD_DNS_PORT: String(dnsPort),
    WORLD_IMAP_PORT: String(imapPort),
    WORLD_ZONE: join(data, 'zone.json'),
    WORLD_PROVIDERS: join(data, 'providers.json'),
    WORLD_CLOCK_URL: `${url}/practice/clock`,
    WORLD_REPORTS_URL: `${url}/in/reports/${reportsKey}`,
    WORLD_SHOP_API: `${url}/api/v1`,
    WORLD_SHOP_TOKEN: options.empty ? '' : addApiToken(db, 'Practice shop', Date.now()).token,
    ...options.env,
  }
  const running = new Map<ProcessName, ChildProcess>()
  const ready: Record<ProcessName, () => Promise<boolean>> = {
    web: async () => (await fetch(`${url}/api/session`)).ok,
    engine: () => Promise.resolve(true),
    world: async () => (await fetch(`${worldUrl}/health`)).ok,
  }
  const gone = (child: ChildProcess) =>
    new Promise<void>((done) =>
      child.exitCode !== null || child.signalCode !== null
        ? done()
        : child.once('exit', () => done()),
    )
  return {
    url,
    enterUrl: `${url}/enter/${enterKey}`,
    worldUrl,
    data,
    env,
    db,
    async start(name) {
      const child = spawn(process.execPath, [entries[name]], {
        env,
        stdio: ['ignore', 'ignore', 'inherit'],
      })
      running.set(name, child)
      await until(`${name} answers`, () => ready[name]().catch(() => false))
    },
    async kill(name) {
      const child = running.get(name)!
      child.kill('SIGKILL')
      await gone(child)
    },
    async stop() {
      for (const child of running.values()) child.kill('SIGKILL')
      await Promise.all([...running.values()].map(gone))
      closeDatabase(db)
      rmSync(data, { recursive: true, force: true })
    },
  }
}

/**
 * Waits until something is so; says what it waited for where it never is. What is asked may fail on the way: while one page
 * gives way to another, both are there for a moment.
 */
export async function until(what: string, is: () => boolean | Promise<boolean>, within = WAITS) {
  const end = Date.now() + within
  let cause: unknown
  const asked = async () => {
    try {
      return await is()
    } catch (error) {
      cause = error
      return false
    }
  }
  while (!(await asked())) {
    if (Date.now() > end) throw new Error(`Waited ${within / 1000} s in vain: ${what}.`, { cause })
    await new Promise((resolve) => setTimeout(resolve, 60))
  }
}

/** Signs in as the demo page does; what one asks with afterwards. */
export async function signIn(installation: Installation) {
  const entered = await fetch(installation.enterUrl, { redirect: 'manual' })
  const cookie = entered.headers
    .getSetCookie()
    .map((set) => set.split(';')[0])
    .join('; ')
  return async (method: string, path: string, body?: unknown) => {
    const raw = body instanceof Uint8Array
    const answer = await fetch(`${installation.url}${path}`, {
      method,
      headers: {
        cookie,
        // As a browser says of what our own pages ask.
        'sec-fetch-site': 'same-origin',
        ...(body === undefined
          ? {}
          : { 'content-type': raw ? 'application/octet-stream' : 'application/json' }),
      },
      ...(body === undefined
        ? {}
        : { body: raw ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body) }),
    })
    const text = await answer.text()
    return {
      status: answer.status,
      body: (text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : text) as any,
    }
  }
}

/** A copy of a demo account goes on from the moment in which that was made, with its mailboxes on this port. */
function settleDemo(db: Database, imapPort: number) {
  writeClock(db, { ...readClock(db)!, anchorReal: Date.now() })
  run(db, q.updateTable('trial_mailboxes').set({ port: imapPort }))
}

function smallAccount(db: Database) {
  const now = Date.now()
  fillAccount(db, {}, now)
  writeClock(db, { anchorReal: now, anchorPractice: now, rate: 1, jumpTo: null })
  addUser(
    db,
    { name: 'Wren', address: 'wren@galewright.example', passwordHash: '!', role: 'owner' },
    now,
  )
  addList(db, { name: 'Wind notes', description: '' }, now)
}

function secret(): string {
  return randomBytes(24).toString('hex')
}
