import { addressed } from '../../core/delivery'
import { beforeEach, expect, test } from 'vitest'
import { readerLanguages, toldIn } from '../../core/readers'
import { DAY, HOUR } from '../../core/time'
import { all, one, q, run, type Database } from '../../database'
import { madeUpAccount, mailingOnItsWay, somebody } from '../../database/made-up'
import {
  addField,
  addList,
  changeField,
  changeList,
  changeSubscription,
  personByAddress,
  subscriptionState,
  suppress,
} from '../../database/people'
import {
  askOwn,
  changeWord,
  nextRequestToMail,
  ownChangesOf,
  requestMailed,
  requestOf,
  type OwnRequest,
} from '../../database/readers'
import { readRecipient } from '../../database/sending'
import {
  changeAddress,
  changeLists,
  changeValues,
  eraseMyself,
  leaveEverything,
  readerPage,
  requestMail,
  toldTo,
} from '.'

let db: Database
let notes: number
let offers: number
let press: number
let tove: number
let mailing: number
const told = toldIn(readerLanguages.en, 'en', 'UTC')
const from = { told, ip: '127.0.0.1', agent: 'a browser' }
const act = () => ({ ...from, personId: tove, mailingId: mailing, round: 0 })
const times = { now: 5 * DAY, hostNow: 2 * HOUR }

beforeEach(() => {
  ;({ db, list: notes } = madeUpAccount())
  offers = addList(db, { name: 'Offers', description: '' }, 0)
  press = addList(db, { name: 'Press', description: '' }, 0)
  changeList(db, offers, { offered: 1, public_about: 'What costs less', public_often: 'monthly' })
  tove = somebody(db, 'tove', { list: notes, values: { first_name: 'Tove' } })
  mailing = mailingOnItsWay(db, notes)
})
const state = (list: number, person = tove) => subscriptionState(db, person, list)

/** Asks as the page does and gives what stands behind the link that is mailed. */
function asked(kind: OwnRequest, sentTo: string, personId = tove) {
  const address = kind === 'address' ? { address: sentTo } : {}
  const request = {
    personId,
    kind,
    sentTo,
    ...address,
    language: 'en' as const,
    mailingId: mailing,
  }
  expect(askOwn(db, request, times.hostNow)).toBe(true)
  return mailed()
}
function mailed() {
  const next = nextRequestToMail(db, times.hostNow)!
  requestMailed(db, next.id)
  return requestOf(db, next.secret, times.hostNow)!
}

test('lists are joined and left as they were ticked, and nobody joins what they were not offered', () => {
  expect(readerPage(db, tove, 0)!.lists.map(({ id }) => id)).toEqual([notes, offers])
  changeLists(db, act(), { join: [offers, press, 99], leave: [notes] }, 9)
  expect([state(notes), state(offers), state(press)]).toEqual(['unsubscribed', 'subscribed', null])
  const kept = all(
    db,
    q
      .selectFrom('evidence')
      .innerJoin('wordings', 'wordings.id', 'wording_id')
      .select(['list_id', 'state', 'way', 'way_ref', 'text', 'ip'])
      .where('at', '=', 9),
  )
  expect(kept).toEqual([
    {
      ...{ list_id: offers, state: 'subscribed', way: 'their own page', way_ref: String(mailing) },
      text: '☑ Offers · What costs less · monthly · Save your lists',
      ip: '127.0.0.1',
    },
    expect.objectContaining({ list_id: notes, state: 'unsubscribed' }),
  ])
  // Left by the mailing whose link it was.
  expect(readRecipient(db, addressed(mailing, tove))!.left_at).toBe(9)
  expect(readRecipient(db, addressed(mailing, tove))!.state).toBe('dropped')
})

test('one press, and somebody is on no list any more; what they had left before stays as it was', () => {
  changeLists(db, act(), { join: [offers], leave: [] }, 9)
  changeSubscription(db, tove, offers, 'unsubscribed', { act: 'person', way: 'link' }, 10)
  leaveEverything(db, act(), 11)
  expect([state(notes), state(offers)]).toEqual(['unsubscribed', 'unsubscribed'])
  const since = q.selectFrom('subscriptions').select('since').where('list_id', '=', offers)
  expect(one(db, since)!.since).toBe(10)
})

test('a value that differs is changed and kept as the reader’s own change', () => {
  addField(db, { key: 'town', name: 'Town', kind: 'text' })
  addField(db, { key: 'notes', name: 'Secret notes', kind: 'text' })
  expect(readerPage(db, tove, 0)!.fields.map(({ field }) => field.key)).toEqual([
    'first_name',
    'last_name',
  ])
  changeField(db, 'town', { readers: 1 })
  const fields = readerPage(db, tove, 0)!.fields
  expect(fields.map(({ field }) => field.key)).toEqual(['first_name', 'last_name', 'town'])
  const values: Record<string, string | null> = { first_name: 'Tove', town: 'Orrin' }
  changeValues(
    db,
    act(),
    fields.map(({ field, value }) => ({ field, before: value, value: values[field.key] ?? null })),
    9,
  )
  expect(readerPage(db, tove, 0)!.fields.map(({ value }) => value)).toEqual(['Tove', null, 'Orrin'])
  expect(ownChangesOf(db, tove)).toMatchObject([{ what: 'value', detail: 'Town: Orrin' }])
})

test('an address is changed by its mail alone, once, and the former one can be had back', () => {
  suppress(db, tove, 'bounced', 'no such address', 1)
  const request = asked('address', 'tove@oldmill.example')
  expect(personByAddress(db, 'tove@oldmill.example')).toBeUndefined()
  expect(changeAddress(db, request, from, times)).toBe(true)
  expect(personByAddress(db, 'tove@oldmill.example')).toBe(tove)
  // What bounced was the address that is gone.
  expect(readerPage(db, tove, 0)!.suppressed).toBe(false)
  expect(changeAddress(db, request, from, times)).toBe(false)
  const back = mailed()
  expect(back).toMatchObject({ kind: 'address-back', sent_to: 'tove@inkpost.example' })
  expect(back.until).toBe(times.hostNow + 14 * DAY)
  expect(changeAddress(db, back, from, times)).toBe(true)
  expect(personByAddress(db, 'tove@inkpost.example')).toBe(tove)
  expect(nextRequestToMail(db, times.hostNow)).toBeNull()
  expect(ownChangesOf(db, tove).map(({ detail }) => detail)).toEqual([
    'Address: tove@inkpost.example, before tove@oldmill.example',
    'Address: tove@oldmill.example, before tove@inkpost.example',
  ])
})

test('where the new address is on file already the two become one, and nobody comes back by it', () => {
  const other = somebody(db, 'tove2', { list: notes })
  changeSubscription(db, other, notes, 'unsubscribed', { act: 'person', way: 'link' }, 2)
  const request = asked('address', 'Tove2@inkpost.example')
  expect(changeAddress(db, request, from, times)).toBe(true)
  expect(readerPage(db, tove, 0)).toBeNull()
  expect(state(notes, other)).toBe('unsubscribed')
  expect(nextRequestToMail(db, times.hostNow)).toBeNull()
})

test('complained stays complained, whatever address comes', () => {
  suppress(db, tove, 'complained', 'reported', 1)
  changeAddress(db, asked('address', 'tove@oldmill.example'), from, times)
  expect(readerPage(db, tove, 0)!.suppressed).toBe(true)
})

test('erased by themselves: once, and nothing of them stays', () => {
  const request = asked('erase', 'tove@inkpost.example')
  expect(eraseMyself(db, request, times)).toBe(true)
  expect(eraseMyself(db, request, times)).toBe(false)
  expect(readerPage(db, tove, 0)).toBeNull()
  expect(all(db, q.selectFrom('own_requests').selectAll())).toEqual([])
})

test('a link works for an hour and is in its mail alone; nobody’s mailbox is filled with them', () => {
  const request = asked('known', 'tove@inkpost.example')
  expect(all(db, q.selectFrom('own_requests').select('secret'))).toEqual([{ secret: null }])
  expect(requestOf(db, 'x'.repeat(32), times.hostNow)).toBeNull()
  run(db, q.updateTable('own_requests').set({ until: times.hostNow }))
  expect(requestOf(db, 'x'.repeat(32), times.hostNow)).toBeNull()
  expect(request.until - request.asked_at).toBe(HOUR)
  const again = (personId: number, sentTo: string) =>
    askOwn(
      db,
      { personId, kind: 'known', sentTo, language: 'en', mailingId: null },
      times.hostNow + 1,
    )
  expect([1, 2, 3, 4].map(() => again(tove, 'tove@inkpost.example'))).toEqual([
    ...[true, true, true, false],
  ])
  const strangers = Array.from({ length: 9 }, (_, i) => somebody(db, `stranger${i}`))
  const taken = strangers.map((person) => again(person, 'tove@inkpost.example'))
  expect(taken.filter(Boolean)).toHaveLength(2)
})

test('somebody is spoken to in their language, or their list’s, or the account’s, in the account’s words', () => {
  expect(toldTo(db, tove, notes).language).toBe('en')
  changeList(db, notes, { language: 'fr' })
  expect(toldTo(db, tove, notes).plain('lists')).toBe('Vos listes')
  const anna = somebody(db, 'anna', { list: notes, values: { language: 'Deutsch' } })
  expect(toldTo(db, anna, notes).plain('lists')).toBe('Ihre Listen')
  changeWord(db, 'de', 'lists', 'Was Sie lesen')
  expect(toldTo(db, anna, notes).plain('lists')).toBe('Was Sie lesen')
  changeWord(db, 'de', 'lists', null)
  expect(toldTo(db, anna, notes).plain('lists')).toBe('Ihre Listen')
  const finn = somebody(db, 'finn', { list: notes, values: { language: 'suomi' } })
  expect(toldTo(db, finn, notes).language).toBe('fr')
})

test('the mail that confirms says what it is for, leads to one place, and names who sends it', () => {
  const request = { ...asked('erase', 'tove@inkpost.example'), secret: 's3cret' }
  const { subject, text, html } = requestMail(
    db,
    { ...request, language: 'nl' },
    'https://mail.galewright.example',
  )
  expect(subject).toBe('Zal Galewright Kites alles over u wissen?')
  expect(text.match(/https:\S+/g)).toEqual(['https://mail.galewright.example/r/confirm/s3cret'])
  expect(text).toContain('1 Slipway, Sandreach')
  expect(html).toContain('lang="nl"')
  expect(html).not.toMatch(/<img|<script/)
})
