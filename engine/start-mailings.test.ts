import { beforeEach, expect, test } from 'vitest'
import { all, q, run, type Database } from '../database'
import { claimSome, madeUpAccount, somebody } from '../database/made-up'
import { createMailing, linkOf, mailingById, moveMailing, totalsOf } from '../database/mailings'
import { suppressPeople } from '../database/people'
import { beat } from '../database/jobs'
import { claimsOf } from '../database/sending'
import { writeClock, readClock } from '../database/account'
import { HOUR } from '../core/time'
import { someForm, windBox } from '../core/sign-ups/made-up'
import { addSequence } from '../database/sequences'
import { addCall, addSignUp } from '../database/sign-ups'
import { finishedLetter } from '../tests/subscribers'
import type { Letter } from '../core/letters'
import { clockwork } from './clockwork'
import { DEAD_AFTER } from './engine'
import { madeUpEngine } from './made-up'
import { recoverClaims } from './recover-claims'
import { startDueMailings } from './start-mailings'

let db: Database
let list: number
let engine: ReturnType<typeof madeUpEngine>

beforeEach(() => {
  ;({ db, list } = madeUpAccount())
  for (let i = 0; i < 6; i++) somebody(db, `reader${i}`, { list, values: { first_name: `R${i}` } })
  engine = madeUpEngine(db, { smtpUrl: 'smtp://127.0.0.1:9' })
  run(
    db,
    q.insertInto('link_checks').values({
      url: 'https://galewright.example/forecast',
      asked_at: engine.time.now,
      checked_at: engine.time.now,
      status: 200,
    }),
  )
})

function scheduled(at: number, letter: Letter = finishedLetter()): number {
  const id = createMailing(db, { name: letter.subject, listId: list, letter }, 0)
  moveMailing(db, id, ['draft'], 'scheduled', { scheduled_at: at })
  return id
}

test('what is not due stays; what is due begins with the people of that moment', async () => {
  const later = scheduled(engine.time.now + HOUR)
  const due = scheduled(engine.time.now)
  suppressPeople(db, [1], 'asked', 5)
  expect(await startDueMailings(engine)).toBe(true)
  expect(mailingById(db, later)!.state).toBe('scheduled')
  expect(mailingById(db, due)).toMatchObject({ state: 'sending', started_at: engine.time.now })
  expect(totalsOf(db, due)).toMatchObject({ queued: 5 })
  expect(linkOf(db, due, 0)).toBe('https://galewright.example/forecast')
  expect(await startDueMailings(engine)).toBe(false)
})

test('who joins after the beginning is not mailed', async () => {
  const due = scheduled(engine.time.now)
  await startDueMailings(engine)
  somebody(db, 'late', { list })
  await startDueMailings(engine)
  expect(totalsOf(db, due)).toMatchObject({ queued: 6 })
})

test('one that has become faulty is held by its proof, with what is wrong', async () => {
  const due = scheduled(engine.time.now, { ...finishedLetter(), subject: ' ' })
  await startDueMailings(engine)
  expect(mailingById(db, due)).toMatchObject({ state: 'held', held_by: 'proof' })
  expect(mailingById(db, due)!.held_note).toMatch(/subject/i)
  expect(all(db, q.selectFrom('recipients').selectAll())).toEqual([])
})

test('without a mail server it is held and says so', async () => {
  const due = scheduled(engine.time.now)
  engine.settings.smtpUrl = null
  await startDueMailings(engine)
  expect(mailingById(db, due)).toMatchObject({ state: 'held', held_note: 'No mail server is set.' })
})

test('what a dead engine had in conversation becomes uncertain; what a live one has does not', async () => {
  const due = scheduled(engine.time.now)
  await startDueMailings(engine)
  claimSome(claimsOf(db, 'alive', due), 2, engine.time.now)
  claimSome(claimsOf(db, 'dead', due), 3, engine.time.now)
  beat(engine.settings.data, 'dead', engine.time.now - DEAD_AFTER - 1_000)
  beat(engine.settings.data, 'alive', engine.time.now)
  await recoverClaims(engine)
  expect(totalsOf(db, due)).toMatchObject({ claimed: 2, uncertain: 3, queued: 1 })
  beat(engine.settings.data, 'alive', engine.time.now - DEAD_AFTER - 1_000)
  await recoverClaims(engine)
  expect(totalsOf(db, due)).toMatchObject({ claimed: 0, uncertain: 5, queued: 1 })
})

test('a jump of the clock stops at what is due on its way, and goes on when it is done', async () => {
  const start = engine.time.now
  const due = scheduled(start + 20 * 60_000)
  let host = 0
  writeClock(db, { anchorReal: 0, anchorPractice: start, rate: 1, jumpTo: start + 2 * HOUR })
  const at = { ...engine, hostClock: () => host }
  const step = async () => {
    run(db, q.updateTable('clock').set({ followed_at: engine.time.now }))
    const moved = await clockwork(at)
    engine.time.now = readClock(db)!.anchorPractice
    return moved
  }
  expect(await step()).toBe(true)
  expect(engine.time.now).toBe(start + 20 * 60_000)
  // Not before it has begun and is under way.
  expect(await step()).toBe(false)
  await startDueMailings(engine)
  expect(mailingById(db, due)!.state).toBe('sending')
  host += 10_000
  for (let i = 0; i < 200 && readClock(db)!.jumpTo !== null; i++) {
    host += 6_000
    await step()
  }
  expect(readClock(db)).toMatchObject({ jumpTo: null })
  expect(engine.time.now).toBe(start + 2 * HOUR)
})

test('a jump does not leap over a message that is with a mail server', async () => {
  const start = engine.time.now
  const due = scheduled(start)
  await startDueMailings(engine)
  writeClock(db, { anchorReal: 0, anchorPractice: start, rate: 1, jumpTo: start + 2 * HOUR })
  const step = (state: 'claimed' | 'accepted') => {
    run(db, q.updateTable('clock').set({ followed_at: engine.time.now }))
    run(db, q.updateTable('recipients').set({ state }).where('mailing_id', '=', due))
    return clockwork({ ...engine, hostClock: () => 50_000_000 })
  }
  expect(await step('claimed')).toBe(false)
  expect(await step('accepted')).toBe(true)
})

test('a jump stops at what a program, the team or somebody who signed up is to be told on its way', async () => {
  const start = engine.time.now
  const person = { person_id: 1, at: start }
  const sequence_id = addSequence(db, 'Told', list, start)
  const signUp = addSignUp(db, 'Form', someForm([windBox]), start)
  addCall(db, { signUpId: signUp, personId: 1, url: 'http://127.0.0.1:9/', body: {} }, start)
  const told = { ...person, sequence_id, text: '', recipient: 'wren@galewright.example', due: 0 }
  run(db, q.insertInto('team_tellings').values(told))
  const stopAt = async (due: number) => {
    writeClock(db, { anchorReal: 0, anchorPractice: start, rate: 1, jumpTo: start + 2 * HOUR })
    engine.time.now = start
    run(db, q.updateTable('clock').set({ followed_at: start }))
    run(db, q.updateTable('webhook_calls').set({ due }))
    await clockwork({ ...engine, hostClock: () => 0 })
    return readClock(db)!.anchorPractice
  }
  const tell = (due: number) => run(db, q.updateTable('team_tellings').set({ due }))
  tell(start + 20 * 60_000)
  expect(await stopAt(start + 10 * 60_000)).toBe(start + 10 * 60_000)
  expect(await stopAt(start + 25 * 60_000)).toBe(start + 20 * 60_000)
  // And goes on only when they have been.
  expect(await stopAt(start)).toBe(start)
})

test('without a jump the clockwork does nothing', () => {
  expect(clockwork(engine)).toBe(false)
  writeClock(db, { anchorReal: 0, anchorPractice: engine.time.now, rate: 60, jumpTo: null })
  expect(clockwork(engine)).toBe(false)
})
