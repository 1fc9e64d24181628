import Sqlite from 'better-sqlite3'
import fc from 'fast-check'
import { expect, test } from 'vitest'
import { migrate, migrations } from '.'

const shapeOf = (sqlite: Sqlite.Database) =>
  sqlite
    .prepare(
      "select type, name, sql from sqlite_master where name not like 'sqlite_%' order by type, name",
    )
    .all()

test('from empty and from each earlier version one comes to the same shape', () => {
  const whole = new Sqlite(':memory:')
  migrate(whole)
  for (let version = 0; version < migrations.length; version++) {
    const sqlite = new Sqlite(':memory:')
    migrate(sqlite, version)
    expect(sqlite.pragma('user_version', { simple: true })).toBe(version)
    migrate(sqlite)
    migrate(sqlite)
    expect(shapeOf(sqlite)).toEqual(shapeOf(whole))
  }
})

test('why somebody did not get a letter is told of those of earlier versions by the words that were kept', () => {
  const sqlite = new Sqlite(':memory:')
  migrate(sqlite, 21)
  sqlite.pragma('foreign_keys = off')
  const insert = sqlite.prepare(
    'insert into recipients (mailing_id, person_id, state, at, due, answer) values (1, ?, ?, 0, 0, ?)',
  )
  const rows = [
    ['bounced', 'There is no such mailbox.', 'no such address'],
    ['failed', 'The mailbox is full. Given up after two days.', 'mailbox full'],
    ['failed', 'The provider refuses our mail by its policy.', 'policy or authentication'],
    ['failed', 'The provider asks us to slow down. Given up after two days.', 'busy'],
    ['bounced', null, 'unknown'],
    ['accepted', null, null],
    ['deferred', 'The mailbox is full.', null],
  ] as const
  rows.forEach(([state, answer], i) => insert.run(i + 1, state, answer))
  migrate(sqlite)
  const failures = sqlite.prepare('select failure from recipients order by person_id').pluck().all()
  expect(failures).toEqual(rows.map(([, , failure]) => failure))
  expect(
    sqlite.prepare("select count(*) from account where replies <> 'sender'").pluck().get(),
  ).toBe(0)
})

test('lists beside facts are those one is subscribed to, of what was there and whatever happens', () => {
  const sqlite = new Sqlite(':memory:')
  migrate(sqlite, 31)
  sqlite.exec(`
    insert into people (id, address, normal, domain, fields, joined_at, changed_at) values
      (1, 'a', 'a', 'x', '{}', 0, 0), (2, 'b', 'b', 'x', '{}', 0, 0), (3, 'c', 'c', 'x', '{}', 0, 0);
    insert into lists (id, name, key, description, created_at) values
      (1, 'A', 'a', '', 0), (2, 'B', 'b', '', 0), (62, 'C', 'c', '', 0), (63, 'D', 'd', '', 0);
    insert into subscriptions (person_id, list_id, state, since) values
      (1, 1, 'subscribed', 0), (1, 62, 'subscribed', 0), (1, 63, 'subscribed', 0), (2, 2, 'pending', 0);
  `)
  migrate(sqlite)
  const differing = sqlite.prepare(`
    select person_id from facts where lists <> coalesce((select sum(1 << list_id) from subscriptions s
      where s.person_id = facts.person_id and s.state = 'subscribed' and list_id <= 62), 0)`)
  expect(differing.all()).toEqual([])
  const put =
    sqlite.prepare(`insert into subscriptions (person_id, list_id, state, since) values (?, ?, ?, 0)
    on conflict (person_id, list_id) do update set state = excluded.state`)
  const drop = sqlite.prepare('delete from subscriptions where person_id = ? and list_id = ?')
  const state = fc.constantFrom('pending', 'subscribed', 'unsubscribed', null)
  const act = fc.tuple(fc.constantFrom(1, 2, 3), fc.constantFrom(1, 2, 62, 63), state)
  fc.assert(
    fc.property(fc.array(act, { maxLength: 12 }), (acts) => {
      for (const [person, list, now] of acts)
        if (now) put.run(person, list, now)
        else drop.run(person, list)
      expect(differing.all()).toEqual([])
    }),
  )
})

test('an id is never used again, and making tables anew loses nothing', () => {
  const sqlite = new Sqlite(':memory:')
  sqlite.pragma('foreign_keys = on')
  migrate(sqlite, 22)
  const add = (name: string) =>
    Number(
      sqlite
        .prepare(
          "insert into people (address, normal, domain, fields, joined_at, changed_at) values (?, ?, 'x', '{}', 0, 0)",
        )
        .run(name, name).lastInsertRowid,
    )
  add('one')
  const two = add('two')
  sqlite.prepare("insert into tags (name) values ('a')").run()
  sqlite.prepare('insert into person_tags (person_id, tag_id) values (?, 1)').run(two)
  sqlite.pragma('foreign_keys = off')
  sqlite.exec('insert into import_added (import_id, first_id, last_id) values (1, 1, 7)')
  sqlite.pragma('foreign_keys = on')
  const rows = (table: string) => sqlite.prepare(`select * from ${table}`).all()
  const before = ['people', 'tags', 'person_tags', 'facts'].map(rows)
  migrate(sqlite, 23)
  expect(['people', 'tags', 'person_tags', 'facts'].map(rows)).toEqual(before)
  expect(sqlite.pragma('foreign_keys', { simple: true })).toBe(1)
  // Above all that an import still names; and who was the last and is gone leaves their id to nobody.
  const three = add('three')
  expect(three).toBe(8)
  sqlite.prepare('delete from people where id = ?').run(three)
  expect(add('four')).toBe(9)
  // Children still go with their parent, and triggers still keep what they kept.
  sqlite.prepare('delete from people where id = ?').run(two)
  expect(rows('person_tags')).toEqual([])
  expect(sqlite.prepare('select count(*) from facts').pluck().get()).toBe(2)
})

test('people know the import they came by, and a subscription without words gets some', () => {
  const sqlite = new Sqlite(':memory:')
  migrate(sqlite, 23)
  sqlite.pragma('foreign_keys = off')
  sqlite.exec(`
    insert into people (id, address, normal, domain, fields, joined_at, changed_at) values
      (3, 'a', 'a', 'x', '{}', 0, 0), (4, 'b', 'b', 'x', '{}', 0, 0), (9, 'c', 'c', 'x', '{}', 0, 0);
    insert into import_added (import_id, first_id, last_id) values (1, 2, 3), (2, 4, 8);
    insert into wordings (id, text) values (1, 'Yes.');
    insert into evidence (person_id, list_id, at, state, way, wording_id) values
      (3, 1, 0, 'subscribed', 'import', null), (4, 1, 0, 'subscribed', 'form', 1),
      (4, 1, 1, 'unsubscribed', 'link', null);
  `)
  migrate(sqlite)
  expect(sqlite.prepare('select source from people order by id').pluck().all()).toEqual([
    'import:1',
    'import:2',
    null,
  ])
  const words = sqlite.prepare(
    'select w.text from evidence e left join wordings w on w.id = e.wording_id order by e.id',
  )
  expect(words.pluck().all()).toEqual(['The words were not kept at the time.', 'Yes.', null])
  const add = (state: string, wording: number | null) => () =>
    sqlite
      .prepare(
        "insert into evidence (person_id, list_id, at, state, way, wording_id) values (9, 1, 2, ?, 'import', ?)",
      )
      .run(state, wording)
  expect(add('subscribed', null)).toThrow(/needs the words/)
  expect(add('pending', null)).toThrow(/needs the words/)
  add('subscribed', 1)()
  add('unsubscribed', null)()
  expect(() => sqlite.exec('update evidence set at = 7')).toThrow(/never updated/)
})

test('rules on file go on meaning what they meant: who was sent nothing did not open', () => {
  const sqlite = new Sqlite(':memory:')
  migrate(sqlite, 24)
  sqlite.pragma('foreign_keys = off')
  const mail = (did: string, is: string, n: number) => ({
    kind: 'mail',
    did,
    of: { which: 'any' },
    times: { is, n },
    withinDays: null,
  })
  const never = mail('opened', 'at-most', 0)
  const others = [mail('opened', 'at-least', 1), mail('sent', 'at-most', 0)]
  const rule = { kind: 'all', of: [{ kind: 'none', of: [never] }, ...others] }
  sqlite
    .prepare("insert into segments (name, rule, created_at, updated_at) values ('a', ?, 0, 0)")
    .run(JSON.stringify(rule))
  sqlite
    .prepare('insert into sequence_versions (sequence_id, version, map, at) values (1, 1, ?, 0)')
    .run(JSON.stringify({ start: { rule: never } }))
  migrate(sqlite)
  const kept = { ...never, orUnsent: true }
  expect(JSON.parse(sqlite.prepare('select rule from segments').pluck().get() as string)).toEqual({
    ...rule,
    of: [{ kind: 'none', of: [kept] }, ...others],
  })
  expect(
    JSON.parse(sqlite.prepare('select map from sequence_versions').pluck().get() as string),
  ).toEqual({ start: { rule: kept } })
})

test('the hours of a sequence’s mail become each reader’s own; those of mailings stay', () => {
  const sqlite = new Sqlite(':memory:')
  migrate(sqlite, 29)
  sqlite.pragma('foreign_keys = off')
  const hour = 3_600_000
  const mailing = sqlite.prepare(
    "insert into mailings (id, name, state, letter_id, created_at, started_at, sequence_id) values (?, 'a', 'sending', ?, 0, 0, ?)",
  )
  mailing.run(1, 1, null)
  mailing.run(2, 2, 1)
  const insert = sqlite.prepare(
    "insert into recipients (mailing_id, person_id, state, at, due, accepted_at, opened_at, clicked_at) values (?, ?, 'accepted', ?, 0, ?, ?, ?)",
  )
  insert.run(1, 1, 0, 10 * hour, 12 * hour, null)
  insert.run(2, 1, 0, 100 * hour, 102.5 * hour, 103 * hour)
  insert.run(2, 2, 0, 200 * hour, 202 * hour, null)
  insert.run(2, 3, 300 * hour, null, 299 * hour, null)
  const kept = sqlite.prepare('insert into mailing_hours values (?, ?, ?, ?)')
  kept.run(1, 12, 1, 0)
  kept.run(2, 102, 1, 0)
  migrate(sqlite)
  expect(sqlite.prepare('select * from mailing_hours').raw().all()).toEqual([
    [1, 12, 1, 0],
    [2, 0, 1, 0],
    [2, 2, 2, 0],
    [2, 3, 0, 1],
  ])
})

test('what there was before rounds is round 0, is counted where it stands, and is read on from where it was', () => {
  const sqlite = new Sqlite(':memory:')
  migrate(sqlite, 37)
  sqlite.pragma('foreign_keys = off')
  const starts = (when: object) =>
    JSON.stringify({ start: { when, rule: null }, first: null, steps: {} })
  const sequence = sqlite.prepare(
    'insert into sequences (id, name, map, version, created_at, evidence_read, events_read) values (?, ?, ?, ?, 0, 7, 9)',
  )
  sequence.run(1, 'a', starts({ is: 'joined' }), 1)
  sequence.run(2, 'b', starts({ is: 'event', name: 'basket' }), 1)
  sequence.run(3, 'c', starts({ is: 'joined' }), 0)
  sqlite.exec(`
    insert into enrolments (sequence_id, person_id, version, state, why, step, due, entered_at) values
      (1, 1, 1, 'inside', null, 'pause', 5, 0), (1, 2, 1, 'inside', null, 'pause', 5, 0),
      (1, 3, 1, 'left', 'unsubscribed', 'pause', 5, 0), (2, 1, 1, 'finished', null, 'hello', 5, 0);
    insert into recipients (mailing_id, person_id, state, at, due, opened_at) values (4, 1, 'accepted', 3, 0, 8);
    insert into leave_reasons (mailing_id, person_id, reason, at) values (4, 1, 'too-many', 9);
    insert into acts (mailing_id, person_id, kind, link, at, agent_id, method, verdict) values (4, 1, 'click', 0, 9, 1, 'GET', 'human');
  `)
  migrate(sqlite)
  const rows = (sql: string) => sqlite.prepare(sql).raw().all()
  expect(rows('select round, opened_at from recipients')).toEqual([[0, 8]])
  expect(rows('select round, reason from leave_reasons')).toEqual([[0, 'too-many']])
  expect(rows('select sequence_id, start, upto from sequence_marks')).toEqual([
    [1, 0, 7],
    [2, 0, 9],
  ])
  const standing =
    'select sequence_id, state, place, people from sequence_standing where people > 0'
  expect(rows(standing)).toEqual([
    [1, 'inside', 'pause', 2],
    [1, 'left', 'unsubscribed', 1],
    [2, 'finished', '', 1],
  ])
  // Another round is another row, whose click on a link counts anew.
  sqlite.exec(`
    insert into recipients (mailing_id, person_id, round, state, at, due) values (4, 1, 1, 'accepted', 3, 0);
    insert into acts (mailing_id, person_id, round, kind, link, at, agent_id, method, verdict) values (4, 1, 1, 'click', 0, 9, 1, 'GET', 'human');
    update enrolments set step = 'again' where person_id = 2;
    delete from enrolments where person_id = 3;
  `)
  expect(rows('select people, clicks from mailing_link_totals')).toEqual([[2, 2]])
  expect(rows(standing)).toEqual([
    [1, 'inside', 'again', 1],
    [1, 'inside', 'pause', 1],
    [2, 'finished', '', 1],
  ])
})

test('a step that fails leaves nothing half done', () => {
  const sqlite = new Sqlite(':memory:')
  sqlite.exec('create table evidence (id integer)')
  expect(() => migrate(sqlite)).toThrow(/already exists/)
  expect(sqlite.pragma('user_version', { simple: true })).toBe(0)
  expect(shapeOf(sqlite)).toHaveLength(1)
})

test('a database of a newer version is refused with a sentence', () => {
  const sqlite = new Sqlite(':memory:')
  sqlite.pragma(`user_version = ${migrations.length + 1}`)
  expect(() => migrate(sqlite)).toThrow(/newer version of Satchel/)
})
