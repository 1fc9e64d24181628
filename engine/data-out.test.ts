import { addressed } from '../core/delivery'
import { existsSync, readFileSync } from 'node:fs'
import { strFromU8, unzipSync } from 'fflate'
import Papa from 'papaparse'
import { beforeAll, expect, test } from 'vitest'
import { dataKinds, type DataChoice, type DataKind } from '../core/results'
import { DAY } from '../core/time'
import { makeAccount } from '../demo/account'
import { all, one, openMemory, q, run, type Database } from '../database'
import {
  addDataOut,
  addDataSchedule,
  dataOutById,
  listDataOuts,
  listDataSchedules,
} from '../database/exports'
import { rememberErased, tellWhyLeft } from '../database/people'
import { cancelJob, jobById } from '../database/jobs'
import { totalsOf } from '../database/mailings'
import { moneyOfMailing, sentLetters } from '../database/results'
import { dataOutPath } from './data-out'
import { dataSchedules } from './data-schedules'
import { runJobs } from './jobs'
import { madeUpEngine } from './made-up'

let db: Database
let engine: ReturnType<typeof madeUpEngine>
let mailing: number
beforeAll(async () => {
  db = openMemory()
  engine = madeUpEngine(db)
  await makeAccount(db, { seed: 5, size: 400, now: engine.time.now, passwordHash: '!' })
  mailing = one(
    db,
    q
      .selectFrom('mailing_totals')
      .select('mailing_id as id')
      .where('left_list', '>', 0)
      .orderBy('clicked', 'desc'),
  )!.id
})

const everything: DataChoice = {
  mailings: [],
  kinds: dataKinds.map(({ key }) => key),
  days: null,
  from: null,
  to: null,
  unique: true,
  active: true,
  separator: ',',
  quote: '"',
}

/** What comes out: the rows of each file without their header, and what was counted. */
async function takenOut(choice: Partial<DataChoice>) {
  const id = addDataOut(db, { ...everything, ...choice }, engine.time.now)
  expect(await runJobs(engine)).toBe(true)
  const out = dataOutById(db, id)!
  expect(jobById(db, out.job_id!)).toMatchObject({ state: 'done', error: null })
  const files = unzipSync(readFileSync(dataOutPath(engine.settings.data, id)))
  const rowsOf = (kind: DataKind) => {
    const text = strFromU8(files[`${kind}.csv`]!)
    const look = { delimiter: choice.separator ?? ',', quoteChar: choice.quote ?? '"' }
    const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trimEnd(), look)
    expect(errors).toEqual([])
    return data.slice(1)
  }
  return { files, rowsOf, counts: JSON.parse(out.counts!) as Record<DataKind, number> }
}

test('the rows of one mailing are as many as its totals say, and each kind has its file', async () => {
  const person = one(
    db,
    q
      .selectFrom('recipients')
      .select('person_id as id')
      .where('mailing_id', '=', mailing)
      .where('left_at', 'is not', null),
  )!.id
  tellWhyLeft(
    db,
    addressed(mailing, person),
    'too-many',
    '=1+1; "really", they said',
    engine.time.now,
  )
  const { id: held } = one(
    db,
    q
      .selectFrom('people')
      .select('id')
      .where(
        'id',
        'not in',
        q.selectFrom('recipients').select('person_id').where('mailing_id', '=', mailing),
      ),
  )!
  run(
    db,
    q
      .insertInto('holdouts')
      .values({ mailing_id: mailing, person_id: held, at: engine.time.now - 1 }),
  )
  const { files, rowsOf, counts } = await takenOut({ mailings: [mailing] })
  expect(Object.keys(files)).toEqual(dataKinds.map(({ key }) => `${key}.csv`))
  const totals = totalsOf(db, mailing)!
  const recipients = one(
    db,
    q
      .selectFrom('recipients')
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where('mailing_id', '=', mailing),
  )!.n
  for (const { key } of dataKinds) expect(rowsOf(key).length).toBe(counts[key])
  expect(counts).toMatchObject({
    sends: recipients,
    opens: totals.opened,
    clicks: totals.clicked,
    bounces: totals.bounced + totals.failed,
    complaints: totals.complained,
    unsubscribes: totals.left_list,
  })
  expect(totals.clicked).toBeGreaterThan(0)
  expect(rowsOf('clicks').every((row) => /^https?:/.test(row[5]!))).toBe(true)
  const why = rowsOf('unsubscribes').find((row) => row[3])!
  expect(why.slice(3, 5)).toEqual(['Too many letters', `'=1+1; "really", they said`])
  const { started_at } = one(
    db,
    q.selectFrom('mailings').select('started_at').where('id', '=', mailing),
  )!
  const letters = sentLetters(db, mailing)
  for (const kind of ['sends', 'opens', 'clicks', 'unsubscribes'] as const)
    for (const row of rowsOf(kind)) {
      const [sent, subject, variant] = row.slice(-4)
      expect(sent).toBe(new Date(started_at!).toISOString())
      const no = variant === '' ? 0 : variant!.charCodeAt(0) - 65
      expect(subject).toBe(letters.get(no)!.subject)
    }
  const money = moneyOfMailing(db, mailing)
  expect(rowsOf('orders')).toHaveLength(money.orders)
  const sum = rowsOf('orders').reduce((total, row) => total + Number(row[4]), 0)
  expect(sum).toBeCloseTo(money.money / 100, 6)
  expect(rowsOf('orders').every((row) => row[3] && row[5] === 'GBP')).toBe(true)
  expect(rowsOf('holdouts')).toHaveLength(1)
  expect(counts.people).toBeGreaterThanOrEqual(totals.opened)
})

test('all opens come out with machines marked; another separator and quote are read back', async () => {
  const kinds: DataKind[] = ['opens', 'clicks']
  const { rowsOf, counts } = await takenOut({ unique: false, kinds, separator: ';', quote: "'" })
  const acts = all(
    db,
    q
      .selectFrom('acts')
      .select(['kind', 'verdict', (eb) => eb.fn.countAll<number>().as('n')])
      .groupBy(['kind', 'verdict']),
  )
  const sum = (kind: string) =>
    acts.filter((row) => row.kind === kind).reduce((total, { n }) => total + n, 0)
  expect(counts).toEqual({ opens: sum('open'), clicks: sum('click') })
  for (const kind of kinds) expect(rowsOf(kind).length).toBe(counts[kind])
  const human = acts.find((row) => row.kind === 'open' && row.verdict === 'human')!.n
  expect(rowsOf('opens').filter((row) => row[3] === 'a person').length).toBe(human)
})

test('days bound what comes out, both of them included', async () => {
  const kinds: DataKind[] = ['opens']
  const whole = (await takenOut({ kinds })).rowsOf('opens').map((row) => row[2]!)
  const from = whole.toSorted()[Math.floor(whole.length / 3)]!.slice(0, 10)
  const to = whole.toSorted()[Math.floor(whole.length / 2)]!.slice(0, 10)
  const some = (await takenOut({ kinds, from, to })).rowsOf('opens').map((row) => row[2]!)
  const zone = one(db, q.selectFrom('account').select('zone'))!.zone
  const dayOf = new Intl.DateTimeFormat('sv-SE', { timeZone: zone })
  const inside = whole.filter((at) => {
    const day = dayOf.format(new Date(at))
    return day >= from && day <= to
  })
  expect(some.toSorted()).toEqual(inside.toSorted())
  const last = (await takenOut({ kinds, days: 7 }))
    .rowsOf('opens')
    .map((row) => Date.parse(row[2]!))
  expect(last.every((at) => at >= engine.time.now - 7 * DAY)).toBe(true)
})

test('people are those who were active, or everybody', async () => {
  const kinds: DataKind[] = ['people']
  const everybody = one(
    db,
    q.selectFrom('people').select((eb) => eb.fn.countAll<number>().as('n')),
  )!.n
  expect((await takenOut({ kinds, active: false })).counts.people).toBe(everybody)
  const { people } = (await takenOut({ kinds, days: 7 })).counts
  expect(people).toBeLessThan(everybody)
})

test('a file made before somebody was erased goes', async () => {
  const id = addDataOut(db, { ...everything, kinds: ['complaints'] }, engine.time.now)
  await runJobs(engine)
  const path = dataOutPath(engine.settings.data, id)
  await dataSchedules(engine)
  expect(existsSync(path)).toBe(true)
  engine.time.now += 1
  rememberErased(db, 'somebody@inkpost.example', engine.time.now)
  await dataSchedules(engine)
  expect([existsSync(path), dataOutById(db, id)]).toEqual([false, undefined])
})

test('work that is cancelled leaves no file', async () => {
  const id = addDataOut(db, everything, engine.time.now)
  const job = dataOutById(db, id)!.job_id!
  cancelJob(db, job)
  await runJobs(engine)
  expect(jobById(db, job)!.state).toBe('cancelled')
  const path = dataOutPath(engine.settings.data, id)
  expect([existsSync(path), existsSync(`${path}.part`)]).toEqual([false, false])
})

test('a schedule makes one file however far the clock jumps; old files go', async () => {
  run(db, q.deleteFrom('data_outs'))
  const nextAt = engine.time.now + DAY
  addDataSchedule(db, { choice: everything, every: 'day', mailTo: null, nextAt }, engine.time.now)
  expect(await dataSchedules(engine)).toBe(false)
  engine.time.now += 4 * DAY + 1
  expect(await dataSchedules(engine)).toBe(true)
  expect(await dataSchedules(engine)).toBe(false)
  expect(listDataOuts(db)).toHaveLength(1)
  expect(listDataSchedules(db)[0]!.next_at).toBe(nextAt + 4 * DAY)
  await runJobs(engine)
  const [out] = listDataOuts(db)
  expect(existsSync(dataOutPath(engine.settings.data, out!.id))).toBe(true)
  run(db, q.deleteFrom('data_schedules'))
  engine.time.now += 31 * DAY
  await dataSchedules(engine)
  expect(listDataOuts(db)).toEqual([])
  expect(existsSync(dataOutPath(engine.settings.data, out!.id))).toBe(false)
})
