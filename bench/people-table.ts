import { closeDatabase, openDatabase, type Database } from '../database'
import type { Rule } from '../core/segments'
import { countPeople, makeFieldOrder, peopleColumns, peoplePage } from '../database/people'
import { choiceKept } from '../database/segments'
import { median, type Measure } from './harness'
import { millionFolder, NOW } from './million'

/** Each case is timed so often, by turns. */
const TIMES = 9

/** A page of the table, and plain SQL that brings the same hundred rows by the best index there is. */
interface Case {
  name: string
  ours: (db: Database) => { id: number }[]
  plain: string
}

const columns =
  'people.id, address, first_name, last_name, fields, people.joined_at, orders, spent, last_opened_at, keenness'
const byPeople = (order: string, where = '1') =>
  `select ${columns} from people join facts on facts.person_id = people.id where ${where} order by ${order} limit 100`
const byFacts = (order: string) =>
  `select ${columns} from facts join people on people.id = facts.person_id order by ${order} limit 100`
const orders: Record<(typeof peopleColumns)[number], string> = {
  joined: byPeople('people.joined_at desc, people.id desc'),
  name: byPeople('last_name collate nocase desc, first_name collate nocase desc, people.id desc'),
  address: byPeople('normal desc'),
  spent: byFacts('facts.spent desc, facts.person_id desc'),
  opened: byFacts('facts.last_opened_at desc, facts.person_id desc'),
  engagement: byFacts('facts.keenness desc, facts.person_id desc'),
}
const joined = { by: 'joined', descending: true } as const
const byJoined = (where: string) => byPeople('people.joined_at desc, people.id desc', where)

const cases: Case[] = [
  ...peopleColumns.map((by): Case => ({
    name: by,
    ours: (db) => peoplePage(db, {}, 100, 0, { by, descending: true }),
    plain: orders[by],
  })),
  {
    name: 'list',
    ours: (db) => peoplePage(db, { listId: 3 }, 100, 0, joined),
    plain: byJoined(
      "exists (select 1 from subscriptions as s where s.person_id = people.id and s.list_id = 3 and s.state = 'subscribed')",
    ),
  },
  {
    name: 'tag',
    ours: (db) => peoplePage(db, { tagId: 1 }, 100, 0, joined),
    plain: byJoined(
      'exists (select 1 from person_tags as t where t.person_id = people.id and t.tag_id = 1)',
    ),
  },
  {
    name: 'segment',
    ours: (db) => peoplePage(db, choiceKept(db, { segmentId: 1 }, NOW, false), 100, 0, joined),
    plain: byJoined('facts.spent > 5000'),
  },
  {
    name: 'search',
    ours: (db) =>
      peoplePage(db, { search: 'er9999' }, 100, 0, { by: 'address', descending: false }),
    plain: byPeople('normal', "normal like '%er9999%'"),
  },
  // What very many have in common.
  {
    name: 'common',
    ours: (db) => peoplePage(db, { search: 'mail.exa' }, 100, 0, joined),
    plain: byJoined("normal like '%mail.exa%'"),
  },
]

/** The segment that is looked at: who spent over fifty. */
const spent: Rule = {
  kind: 'orders',
  what: 'money',
  test: { is: 'number', than: 'over', number: 5_000 },
  ...{ product: null, category: null, withinDays: null },
}

/**
 * The first hundred rows of the table of a million people, by each column, of a search, of a list, a tag and a segment,
 * against plain SQL for the same rows: the case that is worst. No case takes more than 150 ms.
 */
export const peopleTable: Measure = {
  name: 'people-table',
  unit: 'ms',
  promise: { atMost: 2 },
  runs: 3,
  run() {
    const folder = millionFolder()
    const writing = openDatabase(folder)
    const began = performance.now()
    makeFieldOrder(writing, 'town')
    const notes: Record<string, number> = { 'field order made': performance.now() - began }
    writing.sqlite.exec(`
      insert or ignore into tags (id, name, color) values (1, 'owner', 'plain');
      insert or ignore into person_tags (person_id, tag_id) select id, 1 from people where id % 50 = 0;
      insert or ignore into segments (id, name, rule, created_at, updated_at)
        values (1, 'Spent', '${JSON.stringify(spent)}', 0, 0)`)
    closeDatabase(writing)
    const db = openDatabase(folder, { reading: true })
    const timed = <T>(work: () => T) => {
      const start = performance.now()
      const result = work()
      return { ms: performance.now() - start, result }
    }
    // The members of a segment are gathered when its table is opened.
    notes['segment gathered'] = timed(() => choiceKept(db, { segmentId: 1 }, NOW, true)).ms
    let worst = { ratio: 0, ours: 0, reference: 0 }
    for (const { name, ours, plain } of cases) {
      const statement = db.sqlite.prepare(plain)
      const times = { ours: [] as number[], plain: [] as number[] }
      for (let i = 0; i <= TIMES; i++) {
        const mine = timed(() => ours(db))
        const theirs = timed(() => statement.all() as { id: number }[])
        const ids = (rows: { id: number }[]) => rows.map(({ id }) => id).join()
        if (ids(mine.result) !== ids(theirs.result)) throw new Error(`${name}: other rows`)
        if (i === 0) continue
        times.ours.push(mine.ms)
        times.plain.push(theirs.ms)
      }
      const [mine, theirs] = [median(times.ours), median(times.plain)]
      notes[name] = mine
      notes[`${name}, plain`] = theirs
      if (mine > 150) throw new Error(`${name} takes ${mine} ms`)
      if (mine / theirs > worst.ratio)
        worst = { ratio: mine / theirs, ours: mine, reference: theirs }
    }
    const [far] = peoplePage(db, {}, 1, 900_000, joined)
    notes['next page after 900,000'] = timed(() =>
      peoplePage(db, {}, 100, { after: far!.id, offset: 900_001 }),
    ).ms
    notes['jump to 900,000'] = timed(() => peoplePage(db, {}, 100, 900_000)).ms
    notes.everyone = timed(() => countPeople(db)).ms
    closeDatabase(db)
    return Promise.resolve({ ours: worst.ours, reference: worst.reference, notes })
  },
}
