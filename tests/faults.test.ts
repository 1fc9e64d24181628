import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { mailingById, totalsOf } from '../database/mailings'
import { install, signIn, until, type Installation } from './installation'
import { addSubscribers, dueMailing, finishedLetter } from './subscribers'

let satchel: Installation
beforeAll(async () => {
  satchel = await install()
  addSubscribers(satchel.db, 60)
  await Promise.all([satchel.start('web'), satchel.start('engine')])
})
afterAll(() => satchel.stop())

test('a post office that is down: the mailing waits, says so, and goes on by itself', async () => {
  // The world has answered once, so the proof knows the link; then it goes away.
  await satchel.start('world')
  const first = dueMailing(satchel.db, finishedLetter('First'))
  await until('the first is sent', () => mailingById(satchel.db, first)!.state === 'sent')
  await satchel.kill('world')
  const mailing = dueMailing(satchel.db, finishedLetter('Second'))
  await until(
    'it says that it waits',
    () => mailingById(satchel.db, mailing)!.waiting_note !== null,
  )
  expect(mailingById(satchel.db, mailing)).toMatchObject({ state: 'sending' })
  expect(mailingById(satchel.db, mailing)!.waiting_note).toMatch(/does not answer/)
  expect(totalsOf(satchel.db, mailing)).toMatchObject({ accepted: 0, uncertain: 0, failed: 0 })
  await satchel.start('world')
  await until('it is sent', () => mailingById(satchel.db, mailing)!.state === 'sent')
  expect(mailingById(satchel.db, mailing)!.waiting_note).toBeNull()
  const totals = totalsOf(satchel.db, mailing)!
  expect(totals.accepted + totals.failed).toBe(60)
})

test('pause stops the claims, resume goes on, and the rest can be cancelled', async () => {
  const ask = await signIn(satchel)
  await ask('PUT', '/api/account', {
    ...(await ask('GET', '/api/account')).body,
    pace_per_minute: 600,
  })
  const mailing = dueMailing(satchel.db, finishedLetter('Third'))
  await until('some are accepted', () => (totalsOf(satchel.db, mailing)?.accepted ?? 0) >= 5)
  expect((await ask('POST', `/api/mailings/${mailing}/pause`)).status).toBe(200)
  await until(
    'conversations under way are over',
    () => totalsOf(satchel.db, mailing)!.claimed === 0,
  )
  const paused = totalsOf(satchel.db, mailing)!.accepted
  await new Promise((resolve) => setTimeout(resolve, 700))
  expect(totalsOf(satchel.db, mailing)!.accepted).toBe(paused)
  expect((await ask('POST', `/api/mailings/${mailing}/pause`)).status).toBe(409)
  expect((await ask('POST', `/api/mailings/${mailing}/resume`)).status).toBe(200)
  await until('it goes on', () => totalsOf(satchel.db, mailing)!.accepted > paused)
  const { body } = await ask('POST', `/api/mailings/${mailing}/cancel-rest`)
  await until('it is over', () => totalsOf(satchel.db, mailing)!.claimed === 0)
  const totals = totalsOf(satchel.db, mailing)!
  expect(totals.dropped).toBe(body.dropped)
  expect(totals.accepted + totals.failed + totals.dropped).toBe(60)
  expect(mailingById(satchel.db, mailing)!.state).toBe('sent')
  expect(
    (await ask('PUT', `/api/mailings/${mailing}/letter`, { ...finishedLetter(), version: 1 }))
      .status,
  ).toBe(409)
})

test('the database is backed up while it is written to', async () => {
  const file = join(satchel.data, 'backup.db')
  const mailing = dueMailing(satchel.db, finishedLetter('Fourth'))
  await until('it goes out', () => mailingById(satchel.db, mailing)!.state === 'sending')
  const { status, stdout } = spawnSync(
    process.execPath,
    ['.output/processes/backup.mjs', satchel.data, file],
    { encoding: 'utf8' },
  )
  expect([status, stdout.split('\n')[0]]).toEqual([0, `Backed up to ${file}: 60 people.`])
  expect(stdout).toContain('Not in it: seal.key')
  const copy = new Sqlite(file, { readonly: true })
  expect(copy.prepare("select count(*) from mailings where name = 'Fourth'").pluck().get()).toBe(1)
  copy.close()
})

test('health says which process is missing', async () => {
  const health = async () => {
    const answer = await fetch(`${satchel.url}/api/health`)
    return [answer.status, await answer.json()] as const
  }
  expect(await health()).toEqual([200, { ok: true, web: true, engine: true, database: true }])
  await satchel.kill('engine')
  await until('the engine is missed', async () => (await health())[0] === 503)
  expect((await health())[1]).toMatchObject({ engine: false, database: true })
  await satchel.start('engine')
})
