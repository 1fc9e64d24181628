import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'kysely'
import { mailingsOfMap, type SequenceMap } from '../core/sequences'
import { DAY, HOUR } from '../core/time'
import { all, closeDatabase, openDatabase, raw, transact, type Database } from '../database'
import { addField, addList } from '../database/people'
import {
  advanceDue,
  enrolNew,
  indexDates,
  readSequences,
  runningSequences,
  setMark,
  standingAt,
  trafficOf,
} from '../database/sequences'
import type { Measure } from './harness'
import { keptFolder } from './kept-folder'
import { NOW } from './million'
import { twelveSteps } from './rehearsal'

const PEOPLE = 1_000_000
/** Rounds that everybody finished before the one they are in. */
const PAST = 5
const DUE = 200_000
const EVENTS = 100_000

/** By their numbers: everybody is inside; begins by an event; begins by a birthday. */
const [FULL, BY_EVENT, BY_DATE] = [1, 2, 3]

/** A million people inside a map of twelve steps and five million rounds past, and 100,000 events that nobody has read. */
const insideFolder = () =>
  keptFolder('inside', 'a million people inside a sequence, and five million rounds past', fill)

function fill(db: Database) {
  addList(db, { name: 'Offers', description: '' }, 0)
  addField(db, { key: 'birthday', name: 'Birthday', kind: 'date' })
  const map = twelveSteps()
  const maps: [number, SequenceMap][] = [
    [FULL, map],
    [BY_EVENT, begins(map, { is: 'event', name: 'basket' })],
    [BY_DATE, begins(map, { is: 'date', of: 'birthday', days: 0, yearly: true, hour: 9 })],
  ]
  const { sqlite } = db
  const triggers = sqlite
    .prepare(
      "select name, sql from sqlite_master where type = 'trigger' and name like 'standing_%'",
    )
    .all() as { name: string; sql: string }[]
  for (const { name } of triggers) sqlite.exec(`drop trigger ${name}`)
  sqlite.exec(`
    create temp table n as with recursive s(i) as (select 1 union all select i + 1 from s where i < ${PEOPLE}) select i from s;
    begin;
    insert into people (id, address, normal, domain, fields, joined_at, changed_at)
      select i, 'reader' || i || '@harbourmail.example', 'reader' || i || '@harbourmail.example', 'harbourmail.example',
        json_object('birthday', date('1960-01-01', '+' || (i * 7919 % 14600) || ' days')), 0, 0 from n;
    insert into facts (person_id, joined_at, lists) select i, 0, 2 from n;
    insert into subscriptions (person_id, list_id, state, since) select i, 1, 'subscribed', 0 from n;
    insert into letters (id, subject, preview_text, document, version, updated_at) values (1, '', '', '{}', 1, 0);`)
  const add = sqlite.prepare(
    `insert into sequences (id, name, state, list_id, map, version, created_at, started_at) values (?, ?, 'running', 1, ?, 1, 0, 0)`,
  )
  const version = sqlite.prepare(
    'insert into sequence_versions (sequence_id, version, map, at) values (?, 1, ?, 0)',
  )
  for (const [id, one] of maps) {
    add.run(id, `Sequence ${id}`, JSON.stringify(one))
    version.run(id, JSON.stringify(one))
  }
  const mailing = sqlite.prepare(
    `insert into mailings (id, name, state, list_id, letter_id, sequence_id, past_cap, started_at, created_at)
     values (?, 'Mail', 'sending', 1, 1, ${FULL}, 1, 0, 0)`,
  )
  for (const id of mailingsOfMap(map)) mailing.run(id)
  // In the order of the table's own key, so that it grows at its end.
  sqlite.exec(`
    insert into enrolments (sequence_id, person_id, round, version, state, step, due, visit, arrived_at, entered_at, ended_at)
      select ${FULL}, i, round, 1, case when round < ${PAST} then 'finished' else 'inside' end,
        case when round < ${PAST} then 's6' when i <= ${DUE} then 's2' else 's5' end,
        case when round = ${PAST} and i <= ${DUE} then ${NOW} else ${NOW + 9 * DAY} end, 3, ${NOW - DAY}, ${NOW - 2 * DAY},
        case when round < ${PAST} then ${NOW - DAY} end
      from n cross join (select 0 as round union all select 1 union all select 2 union all select 3 union all select 4 union all select 5);
    insert into sequence_traffic (sequence_id, version, step, way, people)
      select ${FULL}, 1, column1, 0, ${PAST * PEOPLE} from (values ('s0'), ('s1'), ('s2'), ('s3'), ('s4'), ('s5'), ('s6'));
    insert into sequence_standing (sequence_id, version, state, place, people)
      select sequence_id, version, state, case state when 'inside' then step else coalesce(why, '') end, count(*)
      from enrolments group by 1, 2, 3, 4;
    insert into events (person_id, name, at, props)
      select i * 7 % ${PEOPLE} + 1, 'basket', ${NOW} - i, '{"sum": 40}' from n where i <= ${EVENTS};
    commit;
    analyze;`)
  for (const { sql: text } of triggers) sqlite.exec(text)
  setMark(db, BY_EVENT, 0, 0)
  setMark(db, BY_DATE, 0, NOW)
}

function begins(map: SequenceMap, start: SequenceMap['start']['by'][number]): SequenceMap {
  return { ...map, start: { ...map.start, by: [start] } }
}

/** A copy that may be written into; its name, to be thrown away. */
function copied(): { db: Database; folder: string } {
  const folder = mkdtempSync(join(tmpdir(), 'satchel-bench-'))
  cpSync(insideFolder(), folder, { recursive: true })
  return { db: openDatabase(folder), folder }
}

/** Both sides, each on a copy of its own: what ours wrote is what the reference writes. */
function onCopies<T>(
  ours: (db: Database) => void,
  wrote: (db: Database) => T,
  reference: (db: Database, rows: T) => void,
  /** What the reference is given for nothing: not measured. */
  before: (db: Database) => void = () => {},
  /** What is there on our side before anything is due. */
  made: (db: Database) => void = () => {},
): { ours: number; reference: number; rows: T } {
  const timed = (work: () => void) => {
    const began = performance.now()
    work()
    return performance.now() - began
  }
  const [mine, theirs] = [copied(), copied()]
  try {
    made(mine.db)
    const took = timed(() => ours(mine.db))
    const rows = wrote(mine.db)
    before(theirs.db)
    return { ours: took, reference: timed(() => reference(theirs.db, rows)), rows }
  } finally {
    for (const { db, folder } of [mine, theirs]) {
      closeDatabase(db)
      rmSync(folder, { recursive: true, force: true })
    }
  }
}

const sequence = (db: Database, id: number) => runningSequences(db).find((one) => one.id === id)!

type Enrolled = [number, number, number, string, number, number, number | null, number]
const enrolled = (db: Database, id: number): Enrolled[] =>
  db.sqlite
    .prepare(
      `select sequence_id, person_id, round, step, due, arrived_at, started_by, entered_at from enrolments where sequence_id = ?`,
    )
    .raw()
    .all(id) as Enrolled[]

function insertEnrolments(db: Database, rows: readonly Enrolled[]) {
  const insert = db.sqlite.prepare(
    `insert into enrolments (sequence_id, person_id, round, version, step, due, arrived_at, started_by, start, entered_at)
     values (?, ?, ?, 1, ?, ?, ?, ?, 0, ?)`,
  )
  transact(db, () => {
    for (const row of rows) insert.run(row)
  })
}

/** Steps that are due carried out, against the rows that came of it written by prepared statements in one transaction. */
export const sequenceSteps: Measure = {
  name: 'sequence-steps',
  unit: 'ms',
  promise: { atMost: 3 },
  runs: 1,
  run() {
    const done = onCopies(
      (db) => {
        while (advanceDue(db, NOW) > 0);
      },
      (db) => ({
        moved: db.sqlite
          .prepare(
            `select step, due, visit, arrived_at, sequence_id, person_id, round from enrolments where sequence_id = ${FULL} and round = ${PAST} and arrived_at = ${NOW}`,
          )
          .raw()
          .all() as unknown[][],
        trail: db.sqlite
          .prepare('select sequence_id, person_id, round, visit, step, way, at from sequence_trail')
          .raw()
          .all() as unknown[][],
        sent: db.sqlite
          .prepare('select mailing_id, person_id, round, state, at, due from recipients')
          .raw()
          .all() as unknown[][],
      }),
      (db, { moved, trail, sent }) => {
        const move = db.sqlite.prepare(
          'update enrolments set step = ?, due = ?, visit = ?, arrived_at = ? where sequence_id = ? and person_id = ? and round = ?',
        )
        const went = db.sqlite.prepare('insert into sequence_trail values (?, ?, ?, ?, ?, ?, ?)')
        const counted = db.sqlite.prepare(
          'insert into sequence_traffic values (?, 1, ?, ?, 1) on conflict do update set people = people + 1',
        )
        const send = db.sqlite.prepare(
          'insert into recipients (mailing_id, person_id, round, state, at, due) values (?, ?, ?, ?, ?, ?)',
        )
        transact(db, () => {
          for (const row of sent) send.run(row)
          for (const row of trail) {
            went.run(row)
            counted.run(row[0], row[4], row[5])
          }
          for (const row of moved) move.run(row)
        })
      },
    )
    if (done.rows.sent.length !== DUE) throw new Error(`${done.rows.sent.length} were sent`)
    return Promise.resolve({
      ours: done.ours,
      reference: done.reference,
      notes: { steps: done.rows.trail.length },
    })
  },
}

/** Events read and let in, against inserting the enrolments that came of it. */
export const sequenceStart: Measure = {
  name: 'sequence-start',
  unit: 'ms',
  promise: { atMost: 3 },
  runs: 1,
  run() {
    const done = onCopies(
      (db) => {
        while (enrolNew(db, sequence(db, BY_EVENT), NOW).more);
      },
      (db) => enrolled(db, BY_EVENT),
      insertEnrolments,
    )
    return Promise.resolve({ ...done, notes: { 'let in': done.rows.length } })
  },
}

/** A day's birthdays found and let in, against the same found by an index that is made for it, and inserted. */
export const sequenceDates: Measure = {
  name: 'sequence-dates',
  unit: 'ms',
  promise: { atMost: 3 },
  runs: 1,
  run() {
    const nine = NOW + DAY - (NOW % DAY) + 9 * HOUR
    const day = new Date(nine).toISOString().slice(5, 10)
    const done = onCopies(
      (db) => {
        while (enrolNew(db, sequence(db, BY_DATE), nine).more);
      },
      (db) => enrolled(db, BY_DATE),
      (db, rows) => {
        const found = db.sqlite
          .prepare(`select id from people where substr(json_extract(fields, '$.birthday'), 6) = ?`)
          .all(day)
        if (found.length !== rows.length) throw new Error(`${found.length} are not ${rows.length}`)
        insertEnrolments(db, rows)
      },
      (db) =>
        db.sqlite.exec(
          "create index birthdays on people (substr(json_extract(fields, '$.birthday'), 6))",
        ),
      // As when the sequence was started.
      (db) => indexDates(db, [sequence(db, BY_DATE).map]),
    )
    return Promise.resolve({ ...done, notes: { 'let in': done.rows.length } })
  },
}

/** All counts of the map, against counting the rows. */
export const sequencePage: Measure = {
  name: 'sequence-page',
  unit: 'ms',
  promise: { atLeast: 10 },
  faster: true,
  runs: 3,
  run() {
    const db = openDatabase(insideFolder(), { reading: true })
    const began = performance.now()
    const standing = standingAt(db, FULL)
    trafficOf(db, FULL)
    readSequences(db)
    const ours = performance.now() - began
    const counting = performance.now()
    const rows = all(
      db,
      raw(sql<{ state: string; step: string; n: number }>`
        select state, step, count(*) as n from enrolments where sequence_id = ${FULL} group by 1, 2`),
    )
    const reference = performance.now() - counting
    closeDatabase(db)
    const inside = (all: number[]) => all.reduce((sum, n) => sum + n, 0)
    const counted = inside(rows.filter(({ state }) => state === 'inside').map(({ n }) => n))
    if (inside(Object.values(standing)) !== counted) throw new Error('They do not agree.')
    return Promise.resolve({ ours, reference })
  },
}
