import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import type { Letter } from '../core/letters'
import { all, q } from '../database'
import { DEAD_AFTER } from '../engine/engine'
import { createImport, importById, updateImport } from '../database/imports'
import { addJob, jobById } from '../database/jobs'
import { holdMailing, mailingById, recountTotals, totalsOf } from '../database/mailings'
import { install, until, type Installation } from './installation'
import { addSubscribers, dueMailing, finishedLetter } from './subscribers'

let satchel: Installation
beforeAll(async () => {
  satchel = await install()
  addSubscribers(satchel.db, 2_000)
  await satchel.start('world')
  await satchel.start('web')
})
afterAll(() => satchel.stop())

test('killed three times in the middle of 2,000, the engine mails nobody twice and loses nobody', async () => {
  const mailing = dueMailing(satchel.db)
  const accepted = () => totalsOf(satchel.db, mailing)?.accepted ?? 0
  for (const share of [0.15, 0.4, 0.7]) {
    await satchel.start('engine')
    await until(`${share} are accepted`, () => accepted() >= 2_000 * share)
    await satchel.kill('engine')
    expect(mailingById(satchel.db, mailing)!.state).toBe('sending')
  }
  await satchel.start('engine')
  await until('the mailing is sent', () => mailingById(satchel.db, mailing)!.state === 'sent')
  await until(
    'claims of dead engines are settled',
    () => totalsOf(satchel.db, mailing)!.claimed === 0,
  )

  const mails = (await (await fetch(`${satchel.worldUrl}/mailboxes.json`)).json()) as {
    address: string
    messageId: string
  }[]
  const copies = new Map<string, number>()
  for (const { address } of mails) copies.set(address, (copies.get(address) ?? 0) + 1)
  expect([...copies].filter(([, n]) => n > 1)).toEqual([])

  const rows = all(
    satchel.db,
    q
      .selectFrom('recipients')
      .innerJoin('people', 'people.id', 'recipients.person_id')
      .select(['people.normal', 'recipients.state'])
      .where('mailing_id', '=', mailing),
  )
  expect(rows).toHaveLength(2_000)
  const { mailing_id: _, ...totals } = totalsOf(satchel.db, mailing)!
  expect(totals).toMatchObject(recountTotals(satchel.db, mailing))
  // Whoever has a copy is accepted, or was in conversation when an engine died; whoever is accepted has one.
  for (const { normal, state } of rows) {
    if (state === 'accepted') expect(copies.get(normal)).toBe(1)
    else if (copies.has(normal)) expect(state).toBe('uncertain')
    else expect(['uncertain', 'failed']).toContain(state)
  }
  // At most what was in conversation is uncertain: ten connections, three deaths.
  expect(totals.uncertain).toBeLessThanOrEqual(30)
  expect(totals.accepted + totals.uncertain + totals.failed).toBe(2_000)
  await satchel.kill('engine')
})

test('an engine that ends twice at one mailing holds that one, and the next goes out', async () => {
  /** What the engines note that they are just about to make. */
  const folder = join(satchel.data, 'working-at')
  mkdirSync(folder, { recursive: true })
  /** Starts an engine and ends it while it makes the letter; false where it was faster than that. */
  const diesAt = async (mailing: number) => {
    const before = readdirSync(folder)
    const isAtIt = () =>
      readdirSync(folder)
        .filter((engine) => !before.includes(engine))
        .some((engine) => noteIn(join(folder, engine)) === `${mailing} letter`)
    const starting = satchel.start('engine')
    while (!isAtIt() && mailingById(satchel.db, mailing)!.started_at === null)
      await new Promise((go) => setTimeout(go, 2))
    await satchel.kill('engine')
    await starting
    // Asked when it is gone: on its last way it may still have come to the end of the letter.
    const died = isAtIt() && mailingById(satchel.db, mailing)!.started_at === null
    // One that was made too quickly must not go out before those that come after it.
    if (!died) holdMailing(satchel.db, mailing, { held_by: 'hand', held_note: null }, Date.now())
    return died
  }
  let deadly = 0
  do deadly = dueMailing(satchel.db, longLetter(`Deadly after ${deadly}`))
  while (!((await diesAt(deadly)) && (await diesAt(deadly))))
  const next = dueMailing(satchel.db, finishedLetter('The next one'))
  // Until the dead ones have given no sign of life for long enough.
  const silent = Date.now() + DEAD_AFTER + 500
  await until('they count as dead', () => Date.now() > silent)
  await satchel.start('engine')
  await until('the next one is sent', () => mailingById(satchel.db, next)!.state === 'sent')
  expect(mailingById(satchel.db, deadly)).toMatchObject({
    state: 'held',
    held_by: 'fault',
    held_note: expect.stringMatching(/ended twice/),
    started_at: null,
  })
})

test('a job that ends its process twice fails with the reason; the engine and its mail go on', async () => {
  const rows = Array.from({ length: 200_000 }, (_, i) => `import${i}@inkpost.example`)
  const path = join(satchel.data, 'many.csv')
  writeFileSync(path, `mail\n${rows.join('\n')}\n`)
  const importId = createImport(
    satchel.db,
    {
      name: 'many.csv',
      path,
      size: statSync(path).size,
      encoding: 'utf-8',
      delimiter: ',',
      plans: [{ column: 0, header: 'mail', samples: [], target: { to: 'address' } }],
      listId: null,
      statement: '',
    },
    Date.now(),
  )
  const job = addJob(satchel.db, 'import', { importId }, Date.now())
  updateImport(satchel.db, importId, { job_id: job })
  for (const deaths of [1, 2]) {
    await until('it is under way', () => jobById(satchel.db, job)!.state === 'running')
    process.kill(processOf(satchel.data, 'jobs.mjs'), 'SIGKILL')
    await until('its death is noted', () => jobById(satchel.db, job)!.deaths === deaths)
  }
  await until('it fails', () => jobById(satchel.db, job)!.state === 'failed')
  expect(jobById(satchel.db, job)!.error).toMatch(/ended twice/)
  expect(importById(satchel.db, importId)!.state).toBe('failed')
  const mailing = dueMailing(satchel.db, finishedLetter('After all that'))
  await until('it is sent', () => mailingById(satchel.db, mailing)!.state === 'sent')
})

/** What an engine notes; nothing where the note has been taken away meanwhile, as one that ends does with its own. */
function noteIn(path: string): string {
  try {
    return readFileSync(path, 'latin1').trim()
  } catch {
    return ''
  }
}

/** One that takes long enough to make that the engine can be ended meanwhile. */
function longLetter(subject: string): Letter {
  const letter = finishedLetter(subject)
  const rows = Array.from({ length: 12 }, (_, i) =>
    letter.document.rows.map((row) => ({
      ...row,
      id: `${row.id}-${i}`,
      columns: row.columns.map((column) => ({
        ...column,
        blocks: column.blocks.map((block) => ({ ...block, id: `${block.id}-${i}` })),
      })),
    })),
  ).flat()
  return { ...letter, document: { ...letter.document, rows: [...letter.document.rows, ...rows] } }
}

/** The process of an installation that runs a file, by what the system tells of processes. */
function processOf(data: string, file: string): number {
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name)))
    try {
      const told = (what: string) => readFileSync(`/proc/${pid}/${what}`, 'latin1').split('\0')
      if (told('cmdline').some((part) => part.endsWith(file)))
        if (told('environ').includes(`SATCHEL_DATA=${data}`)) return Number(pid)
    } catch {
      // It has ended meanwhile.
    }
  throw new Error(`No process runs ${file}.`)
}
