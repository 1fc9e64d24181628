import { beforeAll, expect, test } from 'vitest'
import { all, one, openMemory, q, run, type Database } from '../database'
import { erasePerson, everythingKnown } from '../database/people'
import { addJob, finishJob } from '../database/jobs'
import { addReport, reportRead } from '../database/sending'
import { runJobs } from '../engine/jobs'
import { madeUpEngine } from '../engine/made-up'
import { makeAccount } from './account'

const NOW = Date.UTC(2026, 10, 23, 9, 40)
let db: Database
let id: number
let address: string

/**
 * Every table that holds somebody by their number: under which name what it holds is given out to them, or why it is not;
 * and whether erasing deletes it, or puts nobody in their place, so that counts stay.
 */
const held: Record<string, { exported: string | { not: string }; erased: 'deleted' | 'nobody' }> = {
  subscriptions: { exported: 'subscriptions', erased: 'deleted' },
  evidence: { exported: 'evidence', erased: 'deleted' },
  person_tags: { exported: 'tags', erased: 'deleted' },
  set_aside: { exported: 'set_aside', erased: 'deleted' },
  recipients: { exported: 'mailings', erased: 'nobody' },
  acts: { exported: 'mailings', erased: 'nobody' },
  leave_reasons: { exported: 'mailings', erased: 'deleted' },
  orders: { exported: 'orders', erased: 'deleted' },
  events: { exported: 'events', erased: 'deleted' },
  notes: { exported: 'notes', erased: 'deleted' },
  tasks: { exported: 'tasks', erased: 'deleted' },
  merged_people: { exported: { not: 'Numbers that are nobody’s any more.' }, erased: 'deleted' },
  webhook_calls: {
    exported: { not: 'Copies of what is given out as sign-ups.' },
    erased: 'deleted',
  },
  hand_overs: { exported: 'handed_over', erased: 'deleted' },
  team_tellings: {
    exported: { not: 'Words of the team about them, mailed within seconds.' },
    erased: 'deleted',
  },
  sign_up_sendings: { exported: 'sign_ups', erased: 'nobody' },
  own_limits: { exported: 'own_limits', erased: 'deleted' },
  own_changes: { exported: 'changed_by_themselves', erased: 'deleted' },
  own_requests: { exported: 'asked_by_mail', erased: 'deleted' },
  sequence_arrivals: {
    exported: { not: 'Who is to come in is in within seconds.' },
    erased: 'deleted',
  },
  cues: {
    exported: { not: 'Changes that stand elsewhere; they are read within seconds.' },
    erased: 'deleted',
  },
  sequence_trail: { exported: 'sequences', erased: 'deleted' },
  enrolments: { exported: 'sequences', erased: 'deleted' },
  reports: { exported: 'reports', erased: 'deleted' },
  replies: { exported: 'replies', erased: 'deleted' },
  facts: { exported: { not: 'Sums of what is given out.' }, erased: 'deleted' },
  import_changes: { exported: { not: 'Values that they had before.' }, erased: 'deleted' },
  frozen_people: { exported: { not: 'Computed of what is given out.' }, erased: 'deleted' },
  segment_people: { exported: { not: 'Computed of what is given out.' }, erased: 'deleted' },
  segment_moves: { exported: { not: 'Computed of what is given out.' }, erased: 'deleted' },
  holdouts: { exported: { not: 'By lot; nothing was sent.' }, erased: 'deleted' },
  goal_starts: { exported: { not: 'Computed of what is given out.' }, erased: 'deleted' },
  goal_hits: { exported: { not: 'Computed of what is given out.' }, erased: 'deleted' },
}

interface Column {
  t: string
  c: string
  type: string
}
const columns = (): Column[] =>
  db.sqlite
    .prepare(
      `select m.name as t, p.name as c, p.type from sqlite_master m, pragma_table_info(m.name) p
       where m.type = 'table' and m.name not like 'sqlite_%' and m.name not like '%_fts%'`,
    )
    .all() as Column[]

beforeAll(async () => {
  db = openMemory()
  await makeAccount(db, { seed: 5, size: 400, now: NOW, passwordHash: '!' })
  const most = one(
    db,
    q
      .selectFrom('recipients')
      .innerJoin('orders', 'orders.person_id', 'recipients.person_id')
      .select('recipients.person_id')
      .where('recipients.clicked_at', 'is not', null)
      .groupBy('recipients.person_id')
      .orderBy((eb) => eb.fn.countAll(), 'desc')
      .limit(1),
  )!
  id = most.person_id
  address = one(db, q.selectFrom('people').select('normal').where('id', '=', id))!.normal
  for (const about of [id, null]) {
    addReport(db, `Final-Recipient: rfc822; ${address.toUpperCase()}`, NOW)
    const last = one(db, q.selectFrom('reports').select('id').orderBy('id', 'desc'))!.id
    reportRead(db, last, 'bounced', about)
  }
  const copy = addJob(db, 'send-copies', { to: ['wren@k.example'], html: `Hello ${address}` }, NOW)
  finishJob(db, copy, 'done', null, NOW)
  run(db, q.insertInto('notes').values({ person_id: id, at: NOW, by_name: 'Wren', text: 'Kind.' }))
})

test('every table that holds somebody says what becomes of that', () => {
  const tables = [
    ...new Set(
      columns()
        .filter(({ c }) => ['person_id', 'kept_id'].includes(c))
        .map(({ t }) => t),
    ),
  ]
  expect(tables.length).toBeGreaterThan(12)
  expect(tables.filter((table) => !(table in held))).toEqual([])
})

test('what somebody is given out has a place for every table of which it says so', () => {
  const known = everythingKnown(db, id)!
  for (const [table, { exported }] of Object.entries(held))
    if (typeof exported === 'string') expect(Object.keys(known), table).toContain(exported)
  expect(known.reports).toHaveLength(1)
  expect(known.orders.length).toBeGreaterThan(0)
})

test('who is erased is in no table any more: not by number, not by address', async () => {
  expect(erasePerson(db, id, NOW)).toBe(true)
  while (await runJobs(madeUpEngine(db)));
  for (const { t, c, type } of columns()) {
    const count = (where: string, value: unknown) =>
      (
        db.sqlite.prepare(`select count(*) as n from "${t}" where ${where}`).get(value) as {
          n: number
        }
      ).n
    if (['person_id', 'kept_id'].includes(c) || (t === 'people' && c === 'id'))
      expect(count(`"${c}" = ?`, id), `${t}.${c}`).toBe(0)
    if (type.toLowerCase() === 'text')
      expect(count(`instr(lower("${c}"), ?) > 0`, address), `${t}.${c}`).toBe(0)
  }
  expect(all(db, q.selectFrom('reports').selectAll())).toEqual([])
})
