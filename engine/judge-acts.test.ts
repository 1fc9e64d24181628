import { addressed } from '../core/delivery'
import { beforeEach, expect, test } from 'vitest'
import { all, q, run, type Database } from '../database'
import { mergePeople } from '../database/people'
import { actRecorder, readRecipient } from '../database/sending'
import { madeUpAccount, mailingOnItsWay, somebody } from '../database/made-up'
import { hoursOf, linkClicks } from '../database/results'
import { recountTotals, saveLinks, totalsOf } from '../database/mailings'
import { HOUR } from '../core/time'
import { judgeActs } from './judge-acts'
import { madeUpEngine } from './made-up'

const program = 'Mozilla/5.0 (X11; Linux x86_64) Mail/3.1'
let db: Database
let tove: number
let mailing: number
let engine: ReturnType<typeof madeUpEngine>
let began: number

beforeEach(() => {
  const made = madeUpAccount()
  db = made.db
  engine = madeUpEngine(db)
  began = engine.time.now
  tove = somebody(db, 'tove', { list: made.list })
  mailing = mailingOnItsWay(db, made.list, { now: began })
  saveLinks(db, mailing, [
    { url: 'https://galewright.example/a', blockId: 'a', words: 'A' },
    { url: 'https://galewright.example/b', blockId: 'b', words: 'B' },
  ])
  run(db, q.updateTable('recipients').set({ state: 'accepted', accepted_at: began }))
})

function act(
  kind: 'open' | 'click',
  after: number,
  over: { link?: number; agent?: string; method?: string } = {},
) {
  actRecorder(db)([
    {
      mailingId: mailing,
      personId: tove,
      round: 0,
      kind,
      link: kind === 'click' ? (over.link ?? 0) : null,
      at: began + after,
      agent: over.agent ?? program,
      method: over.method ?? 'GET',
    },
  ])
}
function judgeAll() {
  engine.time.now += HOUR
  while (judgeActs(engine));
}
const recipient = () => readRecipient(db, addressed(mailing, tove))!
const verdicts = () =>
  all(db, q.selectFrom('acts').select('verdict').orderBy('id')).map(({ verdict }) => verdict)
const totals = () => {
  const { opened, clicked, machine_opened, scanner_clicked } = totalsOf(db, mailing)!
  expect(recountTotals(db, mailing)).toMatchObject({
    opened,
    clicked,
    machine_opened,
    scanner_clicked,
  })
  return [opened, clicked, machine_opened, scanner_clicked]
}

test('what is done with a letter to somebody who was merged since is done by whom they have become', () => {
  const kept = somebody(db, 'kept')
  mergePeople(db, kept, tove, began)
  act('open', HOUR / 4)
  act('click', HOUR / 2, { link: 1 })
  judgeAll()
  expect(readRecipient(db, addressed(mailing, kept))).toMatchObject({
    opened_at: began + HOUR / 4,
    clicked_at: began + HOUR / 2,
  })
  expect(totals()).toEqual([1, 1, 0, 0])
  expect(all(db, q.selectFrom('acts').select('person_id').distinct())).toEqual([
    { person_id: kept },
  ])
})

test('nothing came in: nothing to judge', () => {
  expect(judgeActs(engine)).toBe(false)
})

test('the first open counts, further ones are kept and count no more', () => {
  act('open', 20_000)
  act('open', 90_000)
  judgeAll()
  expect(verdicts()).toEqual(['human', 'human'])
  expect(recipient()).toMatchObject({ opened_at: began + 20_000, clicked_at: null })
  expect(totals()).toEqual([1, 0, 0, 0])
})

test('a click by somebody whose pictures are off is an open as well', () => {
  act('click', 2 * HOUR)
  engine.time.now += 2 * HOUR
  judgeAll()
  expect(recipient()).toMatchObject({
    opened_at: began + 2 * HOUR,
    clicked_at: began + 2 * HOUR,
  })
  expect(totals()).toEqual([1, 1, 0, 0])
  expect(hoursOf(db, mailing)).toEqual([{ hour: 2, opens: 1, clicks: 1 }])
})

test('a click waits until what a scanner would do besides it has come too', () => {
  act('click', 1_000)
  expect(judgeActs(engine)).toBe(false)
  expect(verdicts()).toEqual([null])
  engine.time.now += 30_000
  judgeActs(engine)
  expect(verdicts()).toEqual(['human'])
})

test('a scanner follows every link at once; the reader who comes later counts', () => {
  act('click', 1_000, { link: 0 })
  act('click', 1_200, { link: 1 })
  judgeAll()
  expect(verdicts()).toEqual(['machine', 'machine'])
  expect(totals()).toEqual([0, 0, 0, 1])
  act('click', 4 * HOUR, { link: 1 })
  engine.time.now += 5 * HOUR
  judgeAll()
  expect(totals()).toEqual([1, 1, 0, 1])
  expect(linkClicks(db, mailing).map(({ people }) => people)).toEqual([0, 1])
})

test('who opened first may follow every link as fast as they like', () => {
  act('open', 1_000)
  act('click', 9_000, { link: 0 })
  act('click', 9_100, { link: 1 })
  judgeAll()
  expect(verdicts()).toEqual(['human', 'human', 'human'])
  expect(linkClicks(db, mailing).map(({ people }) => people)).toEqual([1, 1])
})

test.each([
  ['a HEAD request', { method: 'HEAD' }, 'click'],
  ['a program that fetches every picture', { agent: 'Mozilla/5.0' }, 'open'],
  ['a picture proxy', { agent: 'Veilpost picture-proxy/2' }, 'open'],
] as const)('%s says nothing about the reader', (_, over, kind) => {
  act(kind, 60_000, over)
  judgeAll()
  expect(verdicts()).toEqual(['machine'])
  expect(recipient()).toMatchObject({ opened_at: null, clicked_at: null })
  expect(totals().slice(0, 2)).toEqual([0, 0])
})

test('a thousand acts are judged in steps, each once', () => {
  const record = actRecorder(db)
  record(
    Array.from({ length: 1_000 }, (_, i) => ({
      mailingId: mailing,
      personId: tove,
      round: 0,
      kind: 'open' as const,
      link: null,
      at: began + 10_000 + i,
      agent: program,
      method: 'GET',
    })),
  )
  engine.time.now += HOUR
  expect([judgeActs(engine), judgeActs(engine), judgeActs(engine)]).toEqual([true, true, false])
  expect(verdicts().every((verdict) => verdict === 'human')).toBe(true)
  expect(totals()).toEqual([1, 0, 0, 0])
})
