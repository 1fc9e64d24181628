import fc from 'fast-check'
import { beforeEach, expect, test } from 'vitest'
import { DAY, HOUR, MINUTE } from '../../core/time'
import { all, one, q, type Database } from '../../database'
import { madeUpAccount, somebody } from '../../database/made-up'
import {
  addList,
  changeSubscription,
  erasePerson,
  everythingKnown,
  mergePeople,
  personByAddress,
  personDetails,
  subscriptionState,
  suppressPeople,
  valuesOf,
} from '../../database/people'
import { moveSending, sendingById, sendingsOf } from '../../database/sign-ups'
import { confirmSending } from './confirm'
import { madeUpForm, seenForm, sendIn } from './made-up'
import type { SeenForm } from './take'

let db: Database
let wind: number
let offers: number
let seen: SeenForm
const START = Date.UTC(2026, 10, 23)
const tove = 'tove@inkpost.example'

beforeEach(() => {
  ;({ db, list: wind } = madeUpAccount())
  offers = addList(db, { name: 'Offers', description: '' }, 0)
  seen = seenForm(db, madeUpForm([wind, offers]))
})
const rows = () => all(db, q.selectFrom('sign_up_sendings').selectAll().orderBy('id'))
const confirm = (id: number, now: number) =>
  confirmSending(db, { id }, { ip: '192.0.2.7', agent: 'Mail' }, now)
const state = (list: number, address = tove) => {
  const person = personByAddress(db, address)
  return person === undefined ? null : subscriptionState(db, person, list)
}

test('who sends it in is nobody on file before they press; then exactly the ticked lists are theirs, with the words', () => {
  const values = { first_name: 'Tove' }
  expect(sendIn(db, seen, 'Tove@inkpost.example', [`list${wind}`], START, { values })).toEqual({
    kind: 'waits',
  })
  expect(personByAddress(db, tove)).toBeUndefined()
  expect(rows()).toMatchObject([{ state: 'pending', mail: 'confirm', send_due: START }])
  expect(confirm(1, START + HOUR)).toBe('confirmed')
  const person = personByAddress(db, tove)!
  expect([state(wind), state(offers)]).toEqual(['subscribed', null])
  expect(valuesOf(personDetails(db, person)!.person)).toEqual(values)
  expect(
    one(
      db,
      q.selectFrom('evidence as e').innerJoin('wordings as w', 'w.id', 'e.wording_id').selectAll(),
    ),
  ).toMatchObject({
    ...{ way: 'form', way_ref: 'Twelve beaches, version 1', sending_id: 1 },
    ...{ text: `Send me list ${wind}.`, ip: '192.0.2.7' },
  })
  // The guide was not ticked, so it is not sent.
  expect(rows()).toMatchObject([{ state: 'confirmed', mail: null, secret: null }])
  expect(confirm(1, START + 2 * HOUR)).toBe('again')
})

test('one mail only joins nothing, and brings exactly the promised mail', () => {
  sendIn(db, seen, tove, ['guide'], START)
  expect(confirm(1, START + 1)).toBe('confirmed')
  expect([state(wind), state(offers)]).toEqual([null, null])
  expect(rows()).toMatchObject([{ state: 'confirmed', mail: 'promised', send_due: START + 1 }])
})

test('confirming late, or after leaving, changes nothing; and it says so', () => {
  sendIn(db, seen, tove, [`list${wind}`], START)
  moveSending(db, sendingById(db, 1)!, 'lapse', START + 7 * DAY)
  expect(confirm(1, START + 7 * DAY)).toBe('over')
  expect(personByAddress(db, tove)).toBeUndefined()
  const person = somebody(db, 'odd', { list: wind, now: START })
  sendIn(db, seen, 'odd@inkpost.example', [`list${wind}`, 'guide'], START + 1)
  const left = { act: 'person' as const, way: 'link' }
  changeSubscription(db, person, wind, 'unsubscribed', left, START + 2)
  expect(confirm(2, START + 3)).toBe('confirmed')
  expect(state(wind, 'odd@inkpost.example')).toBe('unsubscribed')
  sendIn(db, seen, 'odd@inkpost.example', [`list${wind}`], START + 4)
  expect(confirm(3, START + 5)).toBe('confirmed')
  expect(state(wind, 'odd@inkpost.example')).toBe('subscribed')
  changeSubscription(db, person, wind, 'unsubscribed', left, START + 6)
  expect(confirm(3, START + 7)).toBe('left')
  expect(state(wind, 'odd@inkpost.example')).toBe('unsubscribed')
})

test('somebody on file sees what somebody new sees; they are told by mail, at most once a day', () => {
  const person = somebody(db, 'tove', { list: wind })
  const again = (at: number) => sendIn(db, seen, tove, [`list${wind}`], at)
  const fresh = sendIn(db, seen, 'new@inkpost.example', [`list${wind}`], START)
  expect([again(START), again(START + HOUR), again(START + 2 * DAY)]).toEqual([fresh, fresh, fresh])
  expect(rows().slice(1)).toMatchObject([
    { state: 'already', mail: 'already' },
    { state: 'already', mail: null },
    { state: 'already', mail: 'already' },
  ])
  expect(sendingsOf(db, person)).toEqual([])
})

test('without double opt-in somebody new is on the list at once, and nobody on file is changed or revived', () => {
  const single = seenForm(db, madeUpForm([wind], { doubleOptIn: false }), 'At once')
  const values = { first_name: 'Mallory' }
  expect(sendIn(db, single, tove, [`list${wind}`], START)).toEqual({ kind: 'confirmed' })
  expect(state(wind)).toBe('subscribed')
  const odd = somebody(db, 'odd', { list: wind, values: { first_name: 'Odd' } })
  const left = { act: 'person' as const, way: 'link' }
  changeSubscription(db, odd, wind, 'unsubscribed', left, START)
  const sent = sendIn(db, single, 'odd@inkpost.example', [`list${wind}`], START + 1, { values })
  expect(sent).toEqual({ kind: 'waits' })
  expect(state(wind, 'odd@inkpost.example')).toBe('unsubscribed')
  expect(valuesOf(personDetails(db, odd)!.person).first_name).toBe('Odd')
  // Where it can't be proven on which site it stood, the address is confirmed all the same.
  const other = { proven: false }
  const unproven = sendIn(db, single, 'new@inkpost.example', [`list${wind}`], START + 2, other)
  expect(unproven).toEqual({ kind: 'waits' })
})

test('what is doubtful is mailed nothing: kept for a look, let through by hand, or dropped after two weeks', () => {
  sendIn(db, seen, tove, [`list${wind}`], START, { drawnFor: 100 })
  sendIn(db, seen, 'bot@inkpost.example', [`list${wind}`], START, { trapped: true })
  expect(rows()).toMatchObject([
    { state: 'for-a-look', doubt: 'fast', mail: null, over_due: START + 14 * DAY },
    { state: 'kept-away', doubt: 'trap', mail: null, secret: null },
  ])
  expect(confirm(1, START + 1)).toBe('over')
  expect(moveSending(db, sendingById(db, 1)!, 'let-through', START + DAY)).toBe(true)
  expect(rows()[0]).toMatchObject({ state: 'pending', mail: 'confirm', over_due: START + 8 * DAY })
  expect(confirm(1, START + DAY)).toBe('confirmed')
  expect(moveSending(db, sendingById(db, 2)!, 'let-through', START)).toBe(false)
})

test('sent in twice, one letter; once more after a while, the same link; too often, none', () => {
  const twice = [START, START + 1_000, START + 2_000]
  for (const at of twice) sendIn(db, seen, tove, [`list${wind}`], at)
  expect(rows()).toHaveLength(1)
  db.sqlite.exec(`update sign_up_sendings set send_due = null, mailed = 1, mailed_at = ${START}`)
  sendIn(db, seen, tove, [`list${wind}`], START + MINUTE)
  expect(rows()).toMatchObject([{ send_due: null }])
  sendIn(db, seen, tove, [`list${wind}`], START + 20 * MINUTE)
  expect(rows()).toMatchObject([{ send_due: START + 20 * MINUTE }])
  for (let i = 0; i < 4; i++)
    sendIn(db, seen, tove, ['guide'], START + HOUR + i, { values: { first_name: `T${i}` } })
  expect(rows().map(({ doubt }) => doubt)).toEqual([null, null, null, 'address', 'address'])
})

test('from one network many are doubted, and of very many nothing is kept', () => {
  const from = (n: number) =>
    sendIn(db, seen, `reader${n}@inkpost.example`, ['guide'], START, { ip: '192.0.2.1' }).kind
  const came = Array.from({ length: 210 }, (_, n) => from(n))
  expect(came.filter((kind) => kind === 'too-many')).toHaveLength(10)
  const doubts = rows().map(({ doubt }) => doubt)
  expect([doubts[24], doubts[25], doubts.length]).toEqual([null, 'network', 200])
})

test('nobody suppressed is mailed or changed, and the page says what it says to everybody', () => {
  const person = somebody(db, 'tove')
  sendIn(db, seen, tove, [`list${wind}`], START)
  suppressPeople(db, [person], 'by telephone', START)
  expect(confirm(1, START + 1)).toBe('suppressed')
  expect(sendIn(db, seen, tove, [`list${offers}`], START + 2)).toEqual({ kind: 'waits' })
  expect(rows()[1]).toMatchObject({ state: 'kept-away', doubt: 'suppressed', mail: null })
  expect([state(wind), state(offers)]).toEqual([null, null])
})

test('what somebody sent in is given out to them, follows a merge, and is nobody’s once they are erased', () => {
  sendIn(db, seen, tove, [`list${wind}`], START, { ip: '192.0.2.1' })
  confirm(1, START + 1)
  const kept = somebody(db, 'kept')
  mergePeople(db, kept, personByAddress(db, tove)!, START + 2)
  expect(everythingKnown(db, kept)!.sign_ups).toMatchObject([
    { form: 'Twelve beaches', version: 1, language: 'en', state: 'confirmed' },
  ])
  erasePerson(db, kept, START + 3)
  expect(rows()).toMatchObject([
    { state: 'confirmed', person_id: null, address: '', normal: '', ip: null, given: '{}' },
  ])
})

const act = fc.record({
  what: fc.constantFrom('send', 'confirm', 'leave', 'lapse', 'let-through', 'drop', 'suppress'),
  who: fc.nat(1),
  box: fc.nat(2),
  which: fc.nat(5),
  trapped: fc.boolean(),
})
test('whatever the order, nobody is subscribed without having pressed, nor to a list whose box was not ticked', () => {
  const people = ['a@inkpost.example', 'b@inkpost.example']
  fc.assert(
    fc.property(fc.array(act, { maxLength: 25 }), (acts) => {
      ;({ db, list: wind } = madeUpAccount())
      offers = addList(db, { name: 'Offers', description: '' }, 0)
      seen = seenForm(db, madeUpForm([wind, offers]))
      const boxes = ['guide', `list${wind}`, `list${offers}`]
      /** By address and list: whether a press that counted was the last thing that happened to it. */
      const may = new Map<string, boolean>()
      let now = START
      for (const { what, who, box, which, trapped } of acts) {
        now += MINUTE
        const address = people[who]!
        const row = rows()[which]
        if (what === 'send') sendIn(db, seen, address, [boxes[box]!], now, { trapped })
        else if (what === 'leave') {
          const person = personByAddress(db, address)
          const by = { act: 'person' as const, way: 'link' }
          if (person) changeSubscription(db, person, wind, 'unsubscribed', by, now)
          may.set(`${address} ${wind}`, false)
        } else if (what === 'suppress') {
          const person = personByAddress(db, address)
          if (person && which === 5) suppressPeople(db, [person], 'by hand', now)
        } else if (row && what === 'confirm') {
          const before = row.state
          const came = confirm(row.id, now)
          if (before !== 'pending') expect(came).not.toBe('confirmed')
          if (came === 'confirmed')
            for (const id of JSON.parse(row.ticked) as string[])
              if (id !== 'guide') may.set(`${row.normal} ${id.slice(4)}`, true)
        } else if (row && what !== 'confirm') moveSending(db, sendingById(db, row.id)!, what, now)
        for (const one of people)
          for (const list of [wind, offers])
            if (state(list, one) === 'subscribed') expect(may.get(`${one} ${list}`)).toBe(true)
      }
      // Every subscription has the act that made it, with its words.
      const bare = all(
        db,
        q
          .selectFrom('evidence')
          .select('id')
          .where('state', '=', 'subscribed')
          .where((eb) => eb.or([eb('wording_id', 'is', null), eb('sending_id', 'is', null)])),
      )
      expect(bare).toEqual([])
    }),
    { numRuns: 60 },
  )
})
