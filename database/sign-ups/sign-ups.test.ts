import { beforeEach, expect, test } from 'vitest'
import { consentsOf, type Entered } from '../../core/sign-ups'
import { DAY } from '../../core/time'
import { all, one, q, run, type Database } from '..'
import { madeUpAccount, mailingOnItsWay, somebody } from '../made-up'
import { startingLetter, updateBlock } from '../../core/letters'
import { richText } from '../../core/letters/rich-text'
import { someForm, windBox } from '../../core/sign-ups/made-up'
import {
  addSending,
  addSignUp,
  askedVersions,
  changeSignUp,
  endedTests,
  endTest,
  forgetOldSendings,
  isPublished,
  keptAway,
  liveSignUp,
  moveSignUp,
  publishSignUp,
  readSignUps,
  recordVisit,
  resultSlices,
  runningTest,
  sendingsBehind,
  setSignUpDeleted,
  signUpById,
  signUpCounts,
  signUpSlices,
  usedByLetters,
  type NewSending,
  type SignUpOutcome,
  type Visit,
} from '.'

let db: Database
let list: number
let id: number
const NOW = Date.UTC(2026, 10, 23)
const form = someForm([windBox])

beforeEach(() => {
  ;({ db, list } = madeUpAccount())
  id = addSignUp(db, 'Twelve beaches', form, 0)
})

const visit = (over: Partial<Visit> = {}, day = '2026-11-23') =>
  recordVisit(
    db,
    {
      ...{ signUpId: id, version: 1, language: 'en', page: '/beaches', source: {}, begun: false },
      ...{ ip: '192.0.2.1', agent: 'Mozilla/5.0 (iPhone) Mobile', ...over },
    },
    day,
    NOW,
  )
const visits = () => all(db, q.selectFrom('sign_up_visits').selectAll())
const send = (normal: string, over: Partial<NewSending> = {}) =>
  addSending(
    db,
    {
      ...{ signUpId: id, version: 1, language: 'en', page: '/beaches', ip: '192.0.2.1' },
      entered: {
        address: { ok: true, address: normal, normal, domain: 'inkpost.example' },
        ...{ values: { first_name: 'Tove' }, ticked: ['wind'], source: { utm_source: 'map' } },
      } as Entered,
      ...{
        agent: 'Mozilla/5.0 (iPhone) Mobile',
        state: 'pending',
        doubt: null,
        mail: 'confirm',
        work: null,
      },
      ...over,
    },
    NOW,
  )

test('what is drawn stands in public once it is published, and as it was then', () => {
  const { key } = signUpById(db, id)!
  expect(liveSignUp(db, key)).toBeNull()
  expect(publishSignUp(db, id, 1, 'Wren', NOW)).toBe(1)
  expect(isPublished(db, signUpById(db, id)!)).toBe(true)
  const other = someForm([{ ...windBox, text: { en: 'Something else.' } }])
  expect(changeSignUp(db, id, { name: 'Twelve beaches', form: other }, 1)).toBe(true)
  expect(changeSignUp(db, id, { name: 'Mine', form }, 1)).toBe(false)
  expect(isPublished(db, signUpById(db, id)!)).toBe(false)
  expect(consentsOf(liveSignUp(db, key)!.form, ['wind'], 'en')).toMatchObject([
    { wording: 'Wind notes.' },
  ])
  // Whoever saw an earlier draft publishes nothing.
  expect(publishSignUp(db, id, 1, 'Wren', NOW)).toBeNull()
  expect(publishSignUp(db, id, 2, 'Wren', NOW)).toBe(2)
  expect(() => db.sqlite.exec(`update sign_up_versions set form = '{}'`)).toThrow('never updated')
})

test('it is paused, ended and deleted; a deleted one is brought back as it was', () => {
  publishSignUp(db, id, 1, null, NOW)
  expect(moveSignUp(db, id, ['paused'], 'live')).toBe(false)
  expect(moveSignUp(db, id, ['live'], 'paused')).toBe(true)
  expect(setSignUpDeleted(db, id, NOW)).toBe(true)
  expect([signUpById(db, id), readSignUps(db, NOW)]).toEqual([undefined, []])
  expect(setSignUpDeleted(db, id, null)).toBe(true)
  expect(signUpById(db, id)).toMatchObject({ name: 'Twelve beaches', state: 'paused' })
})

test('a visitor counts once a day and form; who they are can’t be told when the day is over', () => {
  visit()
  visit({ begun: true })
  visit()
  visit({ ip: '192.0.2.2' })
  expect(visits()).toHaveLength(2)
  expect(
    visits()
      .map(({ begun }) => begun)
      .sort(),
  ).toEqual([0, 1])
  expect(visits()[0]).toMatchObject({ device: 'phone', page: '/beaches' })
  const before = one(db, q.selectFrom('visitor_keys').selectAll())!
  visit({}, '2026-11-24')
  expect(visits()).toHaveLength(3)
  expect(all(db, q.selectFrom('visitor_keys').selectAll())).toMatchObject([{ day: '2026-11-24' }])
  expect(JSON.stringify(visits())).not.toContain('192.0.2.1')
  expect(one(db, q.selectFrom('visitor_keys').selectAll())!.key).not.toBe(before.key)
})

test('what came of it is told by what sets visitors apart, and what was kept away by its reason', () => {
  for (let i = 0; i < 5; i++) visit({ ip: `192.0.2.${i}`, source: { utm_source: 'map' } })
  visit({ ip: '192.0.2.9', page: '/shop', language: 'de' })
  send('tove@inkpost.example')
  send('bot@inkpost.example', { state: 'kept-away', doubt: 'trap', mail: null })
  const by = (what: 'page' | 'source' | 'device' | 'language' | 'version' | 'week') =>
    signUpSlices(db, id, what, NOW - DAY, NOW).map(({ what, seen, sentIn }) => [what, seen, sentIn])
  expect(by('page')).toEqual([
    ['/beaches', 5, 1],
    ['/shop', 1, 0],
  ])
  expect(by('source')).toEqual([
    ['map', 5, 1],
    ['', 1, 0],
  ])
  expect(by('device')).toEqual([['phone', 6, 1]])
  expect(by('version')).toEqual([[1, 6, 1]])
  expect(by('week')).toEqual([[0, 6, 1]])
  expect(keptAway(db, id, 0)).toEqual({ doubts: [{ doubt: 'trap', many: 1 }], lapsed: 0 })
  expect(readSignUps(db, NOW)).toMatchObject([{ lately: 1, toLook: 0, kind: 'hosted' }])
})

test('slices add up to the whole, and behind each figure are as many people as it says', () => {
  const people = ['ada', 'bo', 'cy', 'di'].map((name) => somebody(db, name, { list, now: NOW }))
  const mailings = Array.from({ length: 4 }, () => mailingOnItsWay(db, list, { now: NOW }))
  run(db, q.deleteFrom('recipients'))
  for (const [i, person_id] of people.entries()) {
    send(`p${i}@inkpost.example`, { page: i < 3 ? '/beaches' : '/shop', version: 1 + (i % 2) })
    run(
      db,
      q
        .updateTable('sign_up_sendings')
        .set({ state: 'confirmed', person_id, ended_at: NOW })
        .where('normal', '=', `p${i}@inkpost.example`),
    )
    // The first three were sent three letters since; the third was opened by two of them, the fourth counts for nothing.
    for (const [n, mailing_id] of mailings.slice(0, i < 3 ? 4 : 2).entries()) {
      const at = NOW + n + 1
      const opened_at = (n === 2 && i < 2) || n === 3 ? at : null
      run(
        db,
        q.insertInto('recipients').values({
          ...{ mailing_id, person_id, state: 'accepted', at, due: at },
          ...{ accepted_at: at, opened_at },
        }),
      )
    }
  }
  for (const [i, at] of [NOW + 9, NOW - 9].entries())
    run(
      db,
      q.insertInto('orders').values({
        ...{ number: `${i}`, person_id: people[i]!, at, money: 100 },
      }),
    )
  send('later@inkpost.example')
  const later = NOW + 40 * DAY
  const whole = signUpCounts(db, id, 0, later)
  expect(whole).toMatchObject({
    ...{ sentIn: 5, confirmed: 4, third: { of: 3, did: 2 }, ordered: { of: 4, did: 1 } },
    ...{ stayed30: { of: 4 }, stayed90: { of: 0, did: 0 } },
  })
  for (const by of resultSlices) {
    const slices = signUpSlices(db, id, by, 0, later)
    for (const key of ['sentIn', 'confirmed'] as const)
      expect(slices.reduce((sum, one) => sum + one[key], 0)).toBe(whole[key])
    for (const { what, confirmed, third } of slices) {
      const behind = (outcome: SignUpOutcome) =>
        sendingsBehind(db, id, { outcome, by, what: String(what), since: 0 }, later, 100).length
      expect([behind('confirmed'), behind('third')]).toEqual([confirmed, third.did])
    }
  }
})

test('a version is tested beside what stands; publishing, or keeping one, ends the test', () => {
  const draft = (text: string) => {
    const { revision } = signUpById(db, id)!
    const next = someForm([windBox, { id: 'more', kind: 'text', text: { en: text } }])
    changeSignUp(db, id, { name: 'Beaches', form: next }, revision)
    return revision + 1
  }
  publishSignUp(db, id, 1, 'Wren', NOW)
  expect(publishSignUp(db, id, draft('two'), 'Wren', NOW + 1, true)).toBe(2)
  const { key } = signUpById(db, id)!
  expect(liveSignUp(db, key)!.version).toBe(1)
  expect(runningTest(db, id)).toMatchObject({ versions: [1, 2], beganAt: NOW + 1 })
  publishSignUp(db, id, draft('three'), 'Wren', NOW + 2, true)
  expect(runningTest(db, id)).toMatchObject({ versions: [1, 2, 3], beganAt: NOW + 2 })
  expect(endTest(db, id, 9, NOW + 3)).toBe(false)
  expect(endTest(db, id, 2, NOW + 3)).toBe(true)
  expect(liveSignUp(db, key)!.version).toBe(2)
  publishSignUp(db, id, draft('four'), 'Wren', NOW + 4, true)
  expect(runningTest(db, id)!.versions).toEqual([2, 4])
  publishSignUp(db, id, draft('five'), 'Wren', NOW + 5)
  expect(runningTest(db, id)).toBeNull()
  expect(liveSignUp(db, key)!.version).toBe(5)
  expect(endedTests(db, id).map(({ versions, kept }) => [versions, kept])).toEqual([
    [[2, 4], null],
    [[1, 2, 3], 2],
    [[1, 2], null],
  ])
})

test('what versions asked and came to is known for all forms', () => {
  publishSignUp(db, id, 1, null, NOW)
  visit()
  send('tove@inkpost.example')
  run(db, q.updateTable('sign_up_sendings').set({ state: 'confirmed' }))
  expect(askedVersions(db, 0)).toEqual([{ signUpId: id, fields: [], seen: 1, confirmed: 1 }])
})

test('after its time it is forgotten whose a sending was, not that it came', () => {
  send('tove@inkpost.example')
  expect(forgetOldSendings(db, NOW, 10)).toBe(0)
  expect(forgetOldSendings(db, NOW + 1, 10)).toBe(1)
  expect(forgetOldSendings(db, NOW + 1, 10)).toBe(0)
  expect(all(db, q.selectFrom('sign_up_sendings').selectAll())).toMatchObject([
    { normal: '', given: '{}', ip: null, secret: null, send_due: null, page: '/beaches' },
  ])
})

test('how many of the last letters use a field: in a fill-in, or in a rule of theirs', () => {
  const letter = startingLetter()
  const block = letter.document.rows
    .flatMap((row) => row.columns.flatMap(({ blocks }) => blocks))
    .find(({ kind }) => kind === 'text')!
  const document = updateBlock(letter.document, block.id, {
    text: richText('Hello {{ person.town | default: "there" }}'),
  })
  mailingOnItsWay(db, list, { letter: { ...letter, document }, now: NOW })
  mailingOnItsWay(db, list, { letter: startingLetter(), now: NOW })
  run(db, q.updateTable('mailings').set({ started_at: NOW }))
  const { usedBy, looked } = usedByLetters(db, ['town', 'birthday'])
  expect([looked, usedBy.get('town'), usedBy.get('birthday')]).toEqual([2, 1, 0])
})
