import { addressed } from '../core/delivery'
import { once } from 'node:events'
import type { AddressInfo } from 'node:net'
import { setTimeout as wait } from 'node:timers/promises'
import fc from 'fast-check'
import { SMTPServer } from 'smtp-server'
import { expect, test } from 'vitest'
import { stampContent } from '../core/letters'
import { richText } from '../core/letters/rich-text'
import { HOUR, timeToLocalInput } from '../core/time'
import { callBack, sendOff } from '../cases/mailings'
import { moveWish } from '../cases/mailings'
import { all, q, run } from '../database'
import {
  claimsBecomeUncertain,
  resendUncertain,
  dropRest,
  moveRecipient,
  readRecipient,
} from '../database/sending'
import { madeUpAccount, mailingOnItsWay, somebody } from '../database/made-up'
import { engineNotes, beat, engineStops } from '../database/jobs'
import {
  fingerprintOf,
  happeningOf,
  createMailing,
  mailingById,
  moveMailing,
  recountTotals,
  totalsOf,
  updateMailing,
} from '../database/mailings'
import {
  readLists,
  isSuppressed,
  suppressPeople,
  changeSubscription,
  subscriptionState,
} from '../database/people'
import { addStamp, changeStamp, readStamps } from '../database/letters'
import { finishedLetter } from '../tests/subscribers'
import { readAccount, saveLetterhead, updateAccount } from '../database/account'
import { addSequence } from '../database/sequences'
import { madeUpEngine } from './made-up'
import { sender } from './send'
import { recoverClaims } from './recover-claims'
import { contentsToSend, startDueMailings } from './start-mailings'

/**
 * Whatever is done to mailings while they go out, and whenever an engine dies: nobody gets one twice, nobody is lost,
 * nobody gets one who had left before they were claimed, the totals are those of the rows, what goes out stays as it was
 * when it began, never more are claimed than are in conversation; what is sent is what its sender was shown, nothing of
 * it goes out while it can be called back, and a mailing at which engines die stands in nobody's way.
 */
const READERS = 14
const OTHER = 'Welcome aboard'
const LATER = 'Repair day'
/** For so long a mailing can be called back, and an engine gives no sign of life before it counts as dead, hours. */
const CALLED_BACK_FOR = 0.5
const who = fc.integer({ min: 0, max: READERS - 1 })
const engine = fc.constantFrom(0, 1)
type Command =
  | { do: 'step'; engine: number; times: number }
  | { do: 'crash'; engine: number }
  | { do: 'pause' | 'resume' | 'cancel the rest' }
  /** Changes of what letters are made from, and of how the mailing goes out. */
  | { do: 'letterhead' | 'list' | 'sender' | 'pace' | 'stamp' }
  /** A third mailing, which nobody has sent yet: what one does with it on its page. */
  | { do: 'look' | 'send' | 'call back' | 'move' }
  | { do: 'die at the letter'; engine: number }
  | { do: 'clock'; hours: number }
  | { do: 'unsubscribe' | 'suppressed' | 'bounce'; who: number }
const command: fc.Arbitrary<Command> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({
      do: fc.constant('step' as const),
      engine,
      times: fc.integer({ min: 1, max: 3 }),
    }),
  },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('crash' as const), engine }) },
  {
    weight: 2,
    arbitrary: fc.record({ do: fc.constantFrom('pause' as const, 'resume' as const) }),
  },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('cancel the rest' as const) }) },
  {
    weight: 3,
    arbitrary: fc.record({
      do: fc.constantFrom(
        'letterhead' as const,
        'list' as const,
        'sender' as const,
        'pace' as const,
        'stamp' as const,
      ),
    }),
  },
  {
    weight: 5,
    arbitrary: fc.record({
      do: fc.constantFrom(
        'look' as const,
        'send' as const,
        'send' as const,
        'call back' as const,
        'move' as const,
      ),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({ do: fc.constant('die at the letter' as const), engine }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      do: fc.constant('clock' as const),
      hours: fc.constantFrom(0.01, 1, 30, 60),
    }),
  },
  {
    weight: 3,
    arbitrary: fc.record({
      do: fc.constantFrom('unsubscribe' as const, 'suppressed' as const, 'bounce' as const),
      who,
    }),
  },
)
/** What the post office says to each reader, the first time and afterwards. */
const temper = fc.constantFrom('takes', 'takes', 'takes', 'first comes again', 'refuses')

test('random commands, crashes and second engines: one letter at most, one final state each, sums equal rows', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(command, { minLength: 4, maxLength: 18 }),
      fc.array(temper, { minLength: READERS, maxLength: READERS }),
      async (commands, tempers) => {
        const world = await begin(tempers)
        try {
          for (const one of commands) {
            await world.carryOut(one)
            world.sumsEqualRows()
          }
          await world.finish()
          world.holds()
        } finally {
          await world.end()
        }
      },
    ),
    { numRuns: 40 },
  )
}, 180_000)

async function begin(tempers: readonly string[]) {
  const { db, list } = madeUpAccount()
  const people = tempers.map((_, i) => somebody(db, `r${i}@inkpost.example`, { list }))
  const copies = new Map<number, number>()
  const otherCopies = new Map<number, number>()
  const laterCopies = new Map<number, number>()
  /** How messages look: a mailing's are all alike. */
  const looks = new Set<string>()
  const asked = new Map<number, number>()
  const office = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    logger: false,
    onRcptTo({ address }, _session, done) {
      const i = Number(/\d+/.exec(address)![0])
      asked.set(i, (asked.get(i) ?? 0) + 1)
      const no =
        tempers[i] === 'refuses'
          ? 550
          : tempers[i] === 'first comes again' && asked.get(i) === 1
            ? 451
            : null
      done(no ? Object.assign(new Error('not now'), { responseCode: no }) : null)
    },
    onData(stream, session, done) {
      const pieces: Buffer[] = []
      stream.on('data', (piece: Buffer) => pieces.push(piece))
      stream.on('end', () => {
        const i = Number(/\d+/.exec(session.envelope.rcptTo[0]!.address)![0])
        const raw = Buffer.concat(pieces).toString('latin1')
        const subject = /^Subject: (.*)\r$/m.exec(raw)![1]!
        const seen =
          subject === OTHER ? otherCopies : subject.startsWith(LATER) ? laterCopies : copies
        seen.set(i, (seen.get(i) ?? 0) + 1)
        if (subject.startsWith(LATER)) return done()
        looks.add(`${subject} ${/^From: .*\r$/m.exec(raw)![0]} ${/^List-Id: .*\r$/m.exec(raw)![0]}`)
        if (raw.includes('Another stamp')) looks.add('another stamp')
        if (raw.includes('ff00ff')) looks.add('another letterhead')
        done()
      })
    },
  })
  office.on('error', () => {})
  office.listen(0, '127.0.0.1')
  await once(office.server, 'listening')
  const port = (office.server.address() as AddressInfo).port
  const base = madeUpEngine(db, { smtpUrl: `smtp://127.0.0.1:${port}`, connections: 2 })
  let born = 0
  const start = () => {
    const id = `engine-${born++}`
    beat(base.settings.data, id, base.time.now)
    return { id, sending: sender({ ...base, id }) }
  }
  const engines = [start(), start()]
  const dead: typeof engines = []
  const { zone } = readAccount(db)!
  updateAccount(db, { callback_seconds: CALLED_BACK_FOR * 3_600 })
  const letter = finishedLetter()
  const stampable = letter.document.rows.find(({ columns }) =>
    columns.some(({ blocks }) => blocks.some(({ kind }) => kind === 'text')),
  )!
  const stamp = addStamp(db, 'Places', stampContent(stampable), base.time.now)
  stampable.stamp = stamp
  const mailing = mailingOnItsWay(db, list, { letter, now: base.time.now })
  const later = createMailing(
    db,
    { name: LATER, listId: list, letter: { ...letter, subject: LATER } },
    base.time.now,
  )
  updateMailing(db, later, { past_cap: 1 })
  /** What its sender looked at last, and what a refusal or a change since then makes of it. */
  let shown = look()
  let stale = false
  let deaths = 0
  function look() {
    const { mailed } = happeningOf(db, mailingById(db, later)!, null, base.time.now)!
    return fingerprintOf(db, mailingById(db, later)!, null, mailed)
  }
  // Another one to the same people, of a sequence, which goes first.
  const other = mailingOnItsWay(db, list, { letter: finishedLetter(OTHER), now: base.time.now })
  const sequence = addSequence(db, 'Welcome', list, base.time.now)
  run(db, q.updateTable('mailings').set({ sequence_id: sequence }).where('id', '=', other))
  for (const id of [mailing, other]) await contentsToSend(base, mailingById(db, id)!)
  const state = (i: number) => readRecipient(db, addressed(mailing, people[i]!))!.state
  /** Readers who had left, or were suppressed, when nobody had claimed them yet and they had no copy. */
  const leftInTime = new Set<number>()

  async function carryOut(one: Command) {
    const now = base.time.now
    switch (one.do) {
      case 'step':
        for (let n = 0; n < one.times; n++) await step(one.engine)
        return
      case 'crash': {
        // It never writes again, though its conversations come to an end; another one finds what it had claimed.
        dead.push(engines[one.engine]!)
        engines[one.engine] = start()
        claimsBecomeUncertain(
          db,
          engines.map(({ id }) => id),
          now,
        )
        return
      }
      case 'die at the letter': {
        const { id } = engines[one.engine]!
        engineNotes(base.settings.data, id).begin({ mailing: later, what: 'letter' })
        dead.push(engines[one.engine]!)
        engineStops(base.settings.data, id)
        engines[one.engine] = start()
        deaths++
        recover()
        if (deaths > 1)
          expect(['scheduled', 'sending']).not.toContain(mailingById(db, later)!.state)
        return
      }
      case 'look':
        shown = look()
        return void (stale = false)
      case 'send': {
        const before = mailingById(db, later)!.state
        const { people } = look()
        const wanted = { at: null, seen: shown, people, now, hostNow: now }
        const done = sendOff(db, later, wanted)
        if ('scheduledAt' in done) {
          expect(stale, 'sent though it was not what was shown').toBe(false)
          expect(['draft', 'held']).toContain(before)
        }
        return
      }
      case 'call back':
        if (callBack(db, later)) expect(laterCopies.size).toBe(0)
        return
      case 'move': {
        const before = mailingById(db, later)!
        const to = timeToLocalInput(now + 2 * HOUR, zone)
        const moved = moveWish(db, later, to, zone, now)
        if ('refused' in moved) return expect(mailingById(db, later)).toEqual(before)
        expect(moveWish(db, later, moved.was, zone, 0)).toMatchObject({
          wish: moved.was,
        })
        return void moveWish(db, later, to, zone, now)
      }
      case 'stamp': {
        const [kept] = readStamps(db)
        const content = structuredClone(kept!.content)
        for (const { blocks } of content.columns)
          for (const block of blocks)
            if (block.kind === 'text') block.text = richText('Another stamp')
        changeStamp(db, stamp, content, kept!.version, { id: 1, name: 'Ann' }, now)
        // It follows, unless it has begun to go out.
        stale ||= !JSON.stringify(kept!.content).includes('Another stamp')
        return
      }
      case 'pause':
        return void moveMailing(db, mailing, ['sending'], 'held', { held_by: 'hand' })
      case 'resume':
        return void moveMailing(db, mailing, ['held'], 'sending', { held_by: null })
      case 'cancel the rest':
        return void dropRest(db, mailing, now)
      case 'letterhead': {
        const { letterhead } = readAccount(db)!
        stale ||= letterhead.ink !== '#ff00ff'
        return saveLetterhead(db, { ...letterhead, ink: '#ff00ff', paper: '#ff00ff' })
      }
      case 'list':
        stale ||= readLists(db)[0]!.public_name !== 'Another'
        return void run(
          db,
          q.updateTable('lists').set({ public_name: 'Another' }).where('id', '=', list),
        )
      case 'sender':
        stale ||= readAccount(db)!.sender_name !== 'Another'
        return updateAccount(db, { sender_name: 'Another', postal_address: 'Elsewhere' })
      case 'pace':
        return updateAccount(db, { pace_per_minute: 600 })
      case 'clock':
        return void (base.time.now += one.hours * HOUR)
      case 'unsubscribe':
      case 'suppressed': {
        const person = people[one.who]!
        const waits = ['queued', 'deferred'].includes(state(one.who))
        if (one.do === 'suppressed') suppressPeople(db, [person], 'asked', now)
        else
          changeSubscription(db, person, list, 'unsubscribed', { act: 'person', way: 'link' }, now)
        if (waits && !copies.get(one.who)) leftInTime.add(one.who)
        return
      }
      case 'bounce':
        if (state(one.who) === 'accepted')
          moveRecipient(db, addressed(mailing, people[one.who]!), 'accepted', 'bounced', now)
    }
  }

  async function step(no: number) {
    const { id, sending } = engines[no]!
    beat(base.settings.data, id, base.time.now)
    recover()
    const until = mailingById(db, later)!.callback_until
    await startDueMailings({ ...base, id })
    const { started_at } = mailingById(db, later)!
    if (started_at !== null && until !== null) expect(started_at).toBeGreaterThanOrEqual(until)
    await sending.step()
  }

  /** What an engine does first: it settles what the dead ones had, and holds what they died at. */
  function recover() {
    for (const { id } of engines) beat(base.settings.data, id, base.time.now)
    void recoverClaims({ ...base, id: engines[0]!.id })
  }

  /** Whatever state it is in, the mailing is brought to its end. */
  async function finish() {
    moveMailing(db, mailing, ['held'], 'sending', { held_by: null })
    for (let i = 0; i < 300 && mailingById(db, mailing)!.state !== 'sent'; i++) {
      await Promise.all(engines.map(({ sending }) => sending.step()))
      base.time.now += HOUR
      await wait(1)
    }
    expect(mailingById(db, mailing)!.state).toBe('sent')
    for (let i = 0; i < 100 && waitsStill(); i++) {
      await Promise.all(engines.map(({ sending }) => sending.step()))
      base.time.now += HOUR
      await wait(1)
    }
    expect(waitsStill()).toBe(false)
  }

  function waitsStill() {
    const { queued, claimed, deferred } = totalsOf(db, other)!
    return queued + claimed + deferred > 0
  }

  function sumsEqualRows() {
    for (const id of [mailing, other]) expect(totalsOf(db, id)).toMatchObject(recountTotals(db, id))
    // Two engines with two connections each, and those that died with their two.
    const claimed = all(
      db,
      q.selectFrom('recipients').select('engine').where('state', '=', 'claimed'),
    )
    for (const { id } of [...engines, ...dead])
      expect(claimed.filter((row) => row.engine === id).length).toBeLessThanOrEqual(2)
  }

  function holds() {
    sumsEqualRows()
    const rows = all(
      db,
      q.selectFrom('recipients').select(['person_id', 'state']).where('mailing_id', '=', mailing),
    )
    expect(rows.length).toBe(READERS)
    // One look each, that of when they began.
    expect([...looks].filter((look) => look.startsWith(OTHER)).length).toBeLessThanOrEqual(1)
    expect(looks.size).toBeLessThanOrEqual(2)
    expect([...looks].join()).not.toMatch(/nother/)
    for (const many of otherCopies.values()) expect(many).toBe(1)
    for (const many of laterCopies.values()) expect(many).toBe(1)
    if (mailingById(db, later)!.started_at === null) expect(laterCopies.size).toBe(0)
    people.forEach((person, i) => {
      const had = copies.get(i) ?? 0
      const at = state(i)
      expect(had, `copies of ${i}, ${at}`).toBeLessThanOrEqual(1)
      if (at === 'accepted' || at === 'bounced') expect(had).toBe(1)
      if (at === 'failed') expect(had).toBe(0)
      if (at === 'dropped') expect(had).toBe(0)
      expect(['accepted', 'bounced', 'failed', 'dropped', 'uncertain']).toContain(at)
      if (leftInTime.has(i)) expect(had, `left in time: ${i}`).toBe(0)
      if (at === 'dropped' && !isSuppressed(db, person))
        expect(['subscribed', 'unsubscribed']).toContain(subscriptionState(db, person, list))
    })
    // Only at the user's word are the uncertain mailed again, and then they have their answer.
    const uncertain = rows.filter((row) => row.state === 'uncertain').length
    expect(resendUncertain(db, mailing, base.time.now)).toBe(uncertain)
  }

  async function end() {
    for (const { sending } of [...engines, ...dead]) await sending.close().catch(() => {})
    office.close(() => {})
    db.sqlite.close()
  }
  return { carryOut, finish, sumsEqualRows, holds, end }
}
