import { spawn } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'

import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import { expect, test } from 'vitest'
import { migrate } from '../database/migrations'
import { install, setupCode, until } from './installation'
import { freePorts } from './ports'

/** Whole Satchels that are told to end, and one whose disk is full. */

/** All processes below one, by what /proc says. */
function below(pid: number): number[] {
  const parents = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((name) => {
      try {
        const stat = readFileSync(`/proc/${name}/stat`, 'latin1')
        return [
          {
            pid: Number(name),
            parent: Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1]),
          },
        ]
      } catch {
        return []
      }
    })
  const children = parents.filter(({ parent }) => parent === pid).map((one) => one.pid)
  return children.flatMap((child) => [child, ...below(child)])
}
/** How far a process steps back for others (see setPriority); null where it is gone. */
const niceness = (pid: number) => {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'latin1')
    return Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[16])
  } catch {
    return null
  }
}
const isAlive = (pid: number) => {
  try {
    return !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'latin1'))
  } catch {
    return false
  }
}

test.each([
  ['node', ['bin/start.mjs']],
  ['npm', ['start']],
] as const)('SIGTERM to %s ends everything that it started', async (command, args) => {
  const data = mkdtempSync(join(tmpdir(), 'satchel-ending-'))
  // One of them begins on data of an earlier version.
  if (command === 'node') {
    const old = new Sqlite(join(data, 'satchel.db'))
    migrate(old, 14)
    old.close()
  }
  const child = spawn(command, args, {
    env: {
      ...process.env,
      SATCHEL_DATA: data,
      PORT: String((await freePorts(1))[0]),
      SATCHEL_SMTP_URL: 'smtp://127.0.0.1:9',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  let said = ''
  child.stdout.on('data', (piece: Buffer) => (said += piece.toString()))
  await until('it runs', () => said.includes('Satchel runs at'), 600_000)
  if (command === 'node')
    expect(said).toMatch(/step 15 of (\d+)\.\n(.*\n)*.*step \1 of \1\.\n(.*\n)*Satchel runs at/)
  // Those that answer the pages let opens and clicks go first.
  await until('they do', () => below(child.pid!).filter((pid) => niceness(pid) === 5).length === 2)
  const all = below(child.pid!)
  expect(all.length).toBeGreaterThanOrEqual(5)
  child.kill('SIGTERM')
  await until('all have ended', () => ![child.pid!, ...all].some(isAlive))
  rmSync(data, { recursive: true, force: true })
})

test('where there is no room left, a sentence says so, nothing is half kept, and it goes on when there is', async () => {
  const satchel = await install({ empty: true })
  try {
    satchel.env.SATCHEL_MOST_MB = '3'
    await satchel.start('web')
    const { ask } = await owner(satchel.url)
    const row = (text: string) => ({
      id: 'row',
      columns: [
        {
          share: 1,
          blocks: Array.from({ length: 30 }, (_, n) => ({
            id: `b${n}`,
            kind: 'text',
            text: {
              type: 'doc',
              content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
            },
          })),
        },
      ],
    })
    let refused: { status: number; body: any } | null = null
    let kept = 0
    for (let n = 0; n < 400 && !refused; n++) {
      const answer = await ask('POST', '/api/stamps', {
        name: `Stamp ${n}`,
        row: row('x'.repeat(5_000)),
      })
      if (answer.status === 200) kept++
      else refused = answer
    }
    expect(refused).toMatchObject({ status: 507 })
    expect(refused!.body.message).toMatch(/no room left on the disk/)
    expect((await ask('GET', '/api/stamps')).body).toHaveLength(kept)
    await satchel.kill('web')
    satchel.env.SATCHEL_MOST_MB = '0'
    await satchel.start('web')
    const again = await ask('POST', '/api/stamps', {
      name: 'One more',
      row: row('x'.repeat(5_000)),
    })
    expect(again.status).toBe(200)
  } finally {
    await satchel.stop()
  }
})

/** The first visit of an installation that has nobody yet; its session holds over restarts. */
async function owner(url: string) {
  const made = await fetch(`${url}/api/owner`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin' },
    body: JSON.stringify({
      name: 'Wren',
      address: 'wren@galewright.example',
      password: 'a long enough password',
      code: setupCode,
      accountName: 'Galewright Kites',
      zone: 'Europe/London',
    }),
  })
  const cookie = made.headers
    .getSetCookie()
    .map((set) => set.split(';')[0])
    .join('; ')
  return {
    async ask(method: string, path: string, body?: unknown) {
      const answer = await fetch(url + path, {
        method,
        headers: {
          cookie,
          'sec-fetch-site': 'same-origin',
          ...(body ? { 'content-type': 'application/json' } : {}),
        },
        ...(body ? { body: JSON.stringify(body) } : {}),
      })
      return { status: answer.status, body: (await answer.json()) as any }
    },
  }
}
