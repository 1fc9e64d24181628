import { beforeEach, expect, test } from 'vitest'
import { consentsOf, type Entered } from '../../core/sign-ups'
import { DAY } from '../../core/time'
import { all, one, q, run, type Database } from '..'
import { madeUpAccount, mailingOnItsWay } from '../made-up'
import { startingLetter, updateBlock } from '../../core/letters'
import { richText } from '../../core/letters/rich-text'
import { someForm, windBox } from '../../core/sign-ups/made-up'
import {
  addSending,
  addSignUp,
  changeSignUp,
  forgetOldSendings,
  isPublished,
  keptAway,
  liveSignUp,
  moveSignUp,
  publishSignUp,
  readSignUps,
  recordVisit,
  setSignUpDeleted,
  signUpById,
  signUpSlices,
  usedByLetters,
  type NewSending,
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
    signUpSlices(db, id, what, NOW - DAY).map(({ what, seen, sentIn }) => [what, seen, sentIn])
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
