import fc from 'fast-check'
import { afterAll, expect, test } from 'vitest'
import { catalog, rule, someDay, someText } from '../../core/segments/arbitrary'
import {
  explainRule,
  isGroup,
  readyRule,
  ruleToPredicate,
  ruleToSql,
  writeRule,
  type PersonFacts,
  type RankedBy,
  type Ranking,
  type Rule,
} from '../../core/segments'
import { tierOf, withAct, type Keenness } from '../../core/standing'
import { DAY } from '../../core/time'
import { openMemory } from '../connect'
import { addPerson as putPerson } from '../people'
import { wordingId } from '../wordings'
import { factsOf } from './person-facts'
import { all, one, q, run, transact, type Database } from '../query'
import { compareSegments } from './compare'
import { countLines, membersPage, sharedWithMembers } from './lines'
import {
  addSegment,
  changeSegment,
  countMembers,
  countSeveral,
  deleteSegment,
  freezePeople,
  freezeRule,
  restoreSegment,
  readCatalog,
  segmentById,
  usesOfSegment,
} from './segments'

/** Just after summer time ended in one zone, and on the edge of a day in others. */
const now = Date.UTC(2026, 9, 25, 1, 30)
const zone = fc.constantFrom('UTC', 'Europe/London', 'Pacific/Auckland', 'America/St_Johns')

/** Moments near the bounds that rules ask about, and anywhere. */
const moment = fc.oneof(
  fc
    .constantFrom(0, 1, -1, 2, DAY, DAY + 1, DAY - 1, 7 * DAY, 30 * DAY, 30 * DAY - 1)
    .map((ago) => now - Math.max(0, ago)),
  fc.integer({ min: 0, max: 900 * DAY }).map((ago) => now - ago),
)
const maybe = <T>(value: fc.Arbitrary<T>) => fc.option(value, { nil: null })

const recipient = fc.record({
  state: fc.constantFrom('queued', 'accepted', 'failed', 'bounced', 'complained', 'dropped'),
  acceptedAt: maybe(moment),
  openedAt: maybe(moment),
  clickedAt: maybe(moment),
  repliedAt: maybe(moment),
  at: moment,
  openedOn: maybe(fc.constantFrom(1, 2, 3, 4)),
  clicks: fc.array(fc.record({ link: fc.constantFrom(0, 1), at: moment, human: fc.boolean() }), {
    maxLength: 2,
  }),
})
const person = fc.record({
  domain: fc.constantFrom('inkpost.example', 'oldmill.example', 'post.example.de'),
  source: maybe(
    fc.constantFrom('import:1', 'import:12', 'form: Beach', 'api', 'by hand', 'by hand: the desk'),
  ),
  suppressed: maybe(
    fc.record({
      at: moment,
      reason: fc.constantFrom('bounced' as const, 'complained' as const, 'by-hand' as const),
    }),
  ),
  pause: maybe(
    fc.record({ at: moment, until: fc.constantFrom(now - 1, now, now + 1, now + 9 * DAY) }),
  ),
  first: maybe(fc.oneof(fc.constant(''), someText)),
  joinedAt: moment,
  fields: fc.record(
    {
      town: fc.oneof(someText, fc.constantFrom('', 'Orrin', 5, true)),
      left_hand: fc.constantFrom(true, false, 'yes', null),
      flies: fc.oneof(fc.array(someText, { maxLength: 3 }), fc.constantFrom('stunt', ['', 7])),
      height: fc.constantFrom(0, 1, 2, 0.5, -3, 1e21, '1', null),
      birthday: fc.oneof(someDay, fc.constantFrom('soon', 19, null)),
      level: fc.constantFrom('Orrin', 'power'),
      language: fc.constantFrom('de', 'French', 'nl-BE', 'Klingon', '', 7, null),
      locale: fc.constantFrom('it_IT', 'ES'),
    },
    { requiredKeys: [] },
  ),
  tags: fc.subarray([1, 2, 3]),
  subscriptions: fc.array(
    fc.record({
      list: fc.constantFrom(1, 2),
      state: fc.constantFrom('pending', 'subscribed', 'unsubscribed'),
      since: moment,
      way: maybe(fc.constantFrom('import', 'form', 'link')),
    }),
    { maxLength: 2 },
  ),
  mail: fc.dictionary(fc.constantFrom('1', '2', '3', '4'), recipient, { maxKeys: 4 }),
  orders: fc.array(
    fc.record({
      at: moment,
      items: fc.array(
        fc.record({ product: fc.constantFrom(1, 2, 3), money: fc.integer({ min: 0, max: 5_000 }) }),
        { maxLength: 3 },
      ),
    }),
    { maxLength: 3 },
  ),
  events: fc.array(
    fc.record({
      name: fc.constantFrom('page view', 'basket', 'other'),
      at: moment,
      props: fc.record(
        {
          page: fc.oneof(someText, fc.constantFrom(3, '')),
          worth: fc.constantFrom(0, 1, 2, 'x', null),
          new: fc.constantFrom(true, false, 'true'),
        },
        { requiredKeys: [] },
      ),
    }),
    { maxLength: 4 },
  ),
  sequences: fc.dictionary(
    fc.constantFrom('1', '2'),
    fc.array(
      fc.record({
        state: fc.constantFrom('inside' as const, 'finished' as const, 'left' as const),
        at: moment,
      }),
      { minLength: 1, maxLength: 3 },
    ),
    { maxKeys: 2 },
  ),
  signUps: fc.array(
    fc.record({
      id: fc.constantFrom(1, 2, 3),
      state: fc.constantFrom('confirmed' as const, 'lapsed' as const),
      at: moment,
    }),
    { maxLength: 2 },
  ),
  frozen: fc.boolean(),
})
type Made = typeof person extends fc.Arbitrary<infer T> ? T : never

/** An account that has what the rules of `arbitrary.ts` refer to. */
function makeAccount(): Database {
  const db = openMemory()
  for (const [key, { name, kind }] of catalog.fields)
    if (key !== 'first_name')
      run(db, q.insertInto('fields').values({ key, name, kind, position: 0 }))
  for (const [id, name] of catalog.lists)
    run(
      db,
      q.insertInto('lists').values({ id, name, key: `l${id}`, description: '', created_at: 0 }),
    )
  for (const [id, name] of catalog.tags) run(db, q.insertInto('tags').values({ id, name }))
  for (const [id, name] of catalog.sequences)
    run(db, q.insertInto('sequences').values({ id, name, map: '{}', created_at: 0 }))
  run(
    db,
    q
      .insertInto('letters')
      .values({ id: 1, subject: '', preview_text: '', document: '', version: 1, updated_at: 0 }),
  )
  for (let id = 1; id <= 4; id++)
    run(
      db,
      q.insertInto('mailings').values({
        id,
        name: catalog.mailings.get(id) ?? 'Four',
        state: 'sent',
        letter_id: 1,
        sequence_id: id === 4 ? 1 : id === 3 ? 2 : null,
        created_at: 0,
      }),
    )
  for (const [id, { name, rule: of, frozen }] of catalog.segments)
    run(
      db,
      q.insertInto('segments').values({
        id,
        name,
        rule: JSON.stringify(of),
        created_at: 0,
        updated_at: 0,
        frozen_at: frozen ? 0 : null,
      }),
    )
  for (const [id, name, category] of [
    [1, 'Delta 7', 'stunt'],
    [2, 'Spar', 'parts'],
    [3, 'Délta 7', 'Stunt'],
  ] as const)
    run(
      db,
      q
        .insertInto('products')
        .values({ id, key: `p${id}`, name, category, price: 1, created_at: 0 }),
    )
  for (const [id, name] of catalog.signUps)
    run(db, q.insertInto('sign_ups').values({ id, name, key: `s${id}`, form: '{}', created_at: 0 }))
  for (const [id, file_name] of catalog.imports)
    run(
      db,
      q.insertInto('imports').values({
        id,
        file_name,
        path: '',
        size: 0,
        encoding: 'utf-8',
        delimiter: ',',
        plans: '[]',
        statement: '',
        state: 'done',
        created_at: 0,
      }),
    )
  const agents = [
    'x',
    'Mozilla/5.0 (iPhone; CPU iPhone OS 17_0) AppleWebKit/605.1.15 (KHTML, like Gecko) Mobile/15E148',
    'Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/120.0 Safari/537.36',
    'Mozilla/5.0',
  ]
  agents.forEach((text, i) => run(db, q.insertInto('agents').values({ id: i + 1, text })))
  return db
}

function addPerson(db: Database, made: Made, i: number): number {
  const normal = `p${i}@${made.domain}`
  const { id } = run(
    db,
    q.insertInto('people').values({
      address: normal,
      normal,
      domain: made.domain,
      first_name: made.first,
      fields: JSON.stringify(made.fields),
      joined_at: made.joinedAt,
      changed_at: 0,
      source: made.source,
    }),
  )
  if (made.suppressed)
    run(db, q.insertInto('set_aside').values({ person_id: id, ...made.suppressed, detail: '' }))
  if (made.pause)
    run(
      db,
      q
        .insertInto('own_limits')
        .values({ person_id: id, paused_at: made.pause.at, paused_until: made.pause.until }),
    )
  made.signUps.forEach(({ id: sign_up_id, state, at }, n) =>
    run(
      db,
      q.insertInto('sign_up_sendings').values({
        ...{ sign_up_id, version: 1, language: 'en', at: 0, address: normal, normal, given: '{}' },
        ...{ ticked: '[]', device: 'computer', state, person_id: id, hash: `${id} ${n}` },
        ended_at: at,
      }),
    ),
  )
  for (const tag_id of made.tags)
    run(db, q.insertInto('person_tags').values({ person_id: id, tag_id }))
  for (const { list, state, since, way } of new Map(
    made.subscriptions.map((one) => [one.list, one]),
  ).values()) {
    run(
      db,
      q
        .insertInto('subscriptions')
        .values({ person_id: id, list_id: list, state: state as 'pending', since }),
    )
    if (way)
      run(
        db,
        q.insertInto('evidence').values({
          person_id: id,
          list_id: list,
          at: since,
          state: state as 'pending',
          way,
          wording_id: wordingId(db, 'I want it.'),
        }),
      )
  }
  for (const [mailing, of] of Object.entries(made.mail)) {
    const mailing_id = Number(mailing)
    const times = {
      accepted_at: of.acceptedAt,
      opened_at: of.openedAt,
      clicked_at: of.clickedAt,
      replied_at: of.repliedAt,
      opened_on: of.openedOn,
    }
    const base = { mailing_id, person_id: id, state: of.state as 'queued', at: of.at, due: 0 }
    // Half of them come to their times as a mailing does, later; the triggers must see both.
    run(db, q.insertInto('recipients').values(i % 2 ? { ...base, ...times } : base))
    if (i % 2 === 0)
      for (const [column, at] of Object.entries(times))
        run(
          db,
          q
            .updateTable('recipients')
            .set({ [column]: at })
            .where('mailing_id', '=', mailing_id)
            .where('person_id', '=', id),
        )
    for (const { link, at, human } of of.clicks)
      run(
        db,
        q.insertInto('acts').values({
          mailing_id,
          person_id: id,
          kind: 'click',
          link,
          at,
          agent_id: 1,
          method: 'GET',
          verdict: human ? 'human' : 'machine',
        }),
      )
  }
  made.orders.forEach(({ at, items }, n) => {
    const money = items.reduce((sum, item) => sum + item.money, 0)
    const order = run(
      db,
      q.insertInto('orders').values({ number: `${i}-${n}`, person_id: id, at, money }),
    ).id
    items.forEach((item, position) =>
      run(
        db,
        q.insertInto('order_items').values({
          order_id: order,
          position,
          product_id: item.product,
          quantity: 1,
          money: item.money,
        }),
      ),
    )
  })
  for (const { name, at, props } of made.events)
    run(
      db,
      q.insertInto('events').values({ person_id: id, name, at, props: JSON.stringify(props) }),
    )
  for (const [sequence, rounds] of Object.entries(made.sequences))
    for (const [round, { state, at }] of rounds.entries())
      run(
        db,
        q.insertInto('enrolments').values({
          ...{ sequence_id: Number(sequence), person_id: id, round, version: 1, state, step: 's' },
          ...{ due: at, entered_at: at, ended_at: state === 'inside' ? null : at },
        }),
      )
  if (made.frozen) run(db, q.insertInto('frozen_people').values({ segment_id: 2, person_id: id }))
  return id
}

const db = makeAccount()
afterAll(() => db.sqlite.close())

/** Runs `work` among some people and takes them away again. */
function among(made: Made[], work: (ids: number[]) => void) {
  db.sqlite.exec('begin')
  try {
    work(made.map((one, i) => addPerson(db, one, i)))
  } finally {
    db.sqlite.exec('rollback')
  }
}

test('SQL, predicate and explanation agree on every rule and every person', () => {
  const known = readCatalog(db)
  fc.assert(
    fc.property(
      fc.array(person, { minLength: 1, maxLength: 6 }),
      fc.array(rule, { minLength: 6, maxLength: 6 }),
      zone,
      (made, rules, in_) => {
        among(made, (ids) => {
          const asked = { now, zone: in_ }
          expect(countSeveral(db, rules, now)).toEqual(
            rules.map((one) => countMembers(db, one, now)),
          )
          const facts = ids.map((id) => factsOf(db, id)!)
          for (const some of rules) {
            const ready = readyRule(some, known).rule
            const keeps = ruleToPredicate(ready, asked)
            const expected = ids.filter((_, i) => keeps(facts[i]!))
            const found = all(
              db,
              q
                .selectFrom('facts')
                .select('person_id')
                .where(() => ruleToSql(ready, asked))
                .orderBy('person_id'),
            ).map(({ person_id }) => person_id)
            expect(found, writeRule(some, known)).toEqual(expected)
            ids.forEach((id, i) => {
              const explained = explainRule(some, facts[i]!, known, asked, String)
              expect(explained.holds, writeRule(some, known)).toBe(expected.includes(id))
            })
          }
        })
      },
    ),
    { numRuns: 250 },
  )
}, 120_000)

/** Who a ranking keeps, straight from its definition: those with a value in order, and who ties with the last kept. */
function rankedByDefinition(
  facts: PersonFacts[],
  { end, n, unit }: Ranking,
  valueOf: (person: PersonFacts) => number | null,
): PersonFacts[] {
  const value = (person: PersonFacts) => valueOf(person)!
  const down = facts
    .filter((person) => valueOf(person) !== null)
    .sort((a, b) => (end === 'top' ? value(b) - value(a) : value(a) - value(b)))
  const places = unit === 'people' ? n : Math.ceil((down.length * n) / 100)
  const last = down[Math.min(places, down.length) - 1]
  return last
    ? down.filter((person) =>
        end === 'top' ? value(person) >= value(last) : value(person) <= value(last),
      )
    : []
}

test('a ranking keeps so many of those who have any, and who ties with the last of them', () => {
  const known = readCatalog(db)
  const values: Partial<Record<RankedBy, (person: PersonFacts) => number | null>> = {
    money: ({ orders }) =>
      orders.length ? orders.reduce((sum, { money }) => sum + money, 0) : null,
    orders: ({ orders }) => orders.length || null,
    joined: ({ joinedAt }) => joinedAt,
  }
  fc.assert(
    fc.property(
      fc.array(person, { minLength: 1, maxLength: 8 }),
      fc.constantFrom(...(Object.keys(values) as RankedBy[])),
      fc.constantFrom('top' as const, 'bottom' as const),
      fc.constantFrom('people' as const, 'percent' as const),
      fc.integer({ min: 1, max: 100 }),
      (made, by, end, unit, n) => {
        among(made, (ids) => {
          const facts = ids.map((id) => factsOf(db, id)!)
          const ranking: Ranking = { end, n: unit === 'people' ? Math.ceil(n / 10) : n, unit, by }
          const expected = rankedByDefinition(facts, ranking, values[by]!)
          const { rule: ready } = readyRule({ kind: 'rank', ...ranking }, known)
          const keeps = ruleToPredicate(ready, { now, zone: 'UTC' })
          expect(facts.filter(keeps).map(({ normal }) => normal)).toEqual(
            facts.filter((one) => expected.includes(one)).map(({ normal }) => normal),
          )
        })
      },
    ),
    { numRuns: 200 },
  )
})

/** What a line keeps, straight from its definition: see `countLines`. */
function linesByDefinition(
  some: Rule,
  known: ReturnType<typeof readCatalog>,
  facts: PersonFacts[],
) {
  const lines: Record<string, number> = {}
  const keep = (part: Rule, among: PersonFacts[]) =>
    among.filter(ruleToPredicate(readyRule(part, known).rule, { now, zone: 'UTC' }))
  const walk = (part: Rule, above: PersonFacts[], path: number[]) => {
    lines[path.join('.')] = keep(part, above).length
    if (!isGroup(part)) return
    let left = above
    part.of.forEach((child, i) => {
      walk(child, left, [...path, i])
      if (part.kind === 'all') left = keep(child, left)
      if (part.kind === 'none') {
        left = left.filter((one) => !keep(child, [one]).length)
        lines[[...path, i].join('.')] = left.length
      }
    })
  }
  walk(some, facts, [])
  return lines
}

test('every line counts what its definition says, and the last is the whole', () => {
  const known = readCatalog(db)
  fc.assert(
    fc.property(fc.array(person, { minLength: 1, maxLength: 6 }), rule, (made, some) => {
      among(made, (ids) => {
        const facts = ids.map((id) => factsOf(db, id)!)
        const counted = countLines(db, some, now)
        expect(counted.lines, writeRule(some, known)).toEqual(linesByDefinition(some, known, facts))
        expect(counted.total).toBe(countMembers(db, some, now))
        expect(counted.everyone).toBe(ids.length)
        expect(membersPage(db, 100, 0)).toHaveLength(counted.total)
        expect(sharedWithMembers(db, { kind: 'all', of: [] }, now)).toBe(counted.total)
      })
    }),
    { numRuns: 150 },
  )
}, 60_000)

test('sums kept by triggers equal what is computed from the raw rows', () => {
  fc.assert(
    fc.property(fc.array(person, { minLength: 1, maxLength: 5 }), (made) => {
      among(made, (ids) => {
        for (const id of ids) {
          const kept = one(db, q.selectFrom('facts').selectAll().where('person_id', '=', id))!
          const raw = factsOf(db, id)!
          const times = (of: (mail: PersonFacts['mail'][number]) => number | null) =>
            raw.mail.map(of).filter((at) => at !== null)
          const last = (all: number[]) => (all.length ? Math.max(...all) : null)
          const nthLast = (all: number[], n: number) => all.toSorted((a, b) => b - a)[n - 1] ?? 0
          const [sent, opened, clicked] = [
            times((m) => m.acceptedAt),
            times((m) => m.openedAt),
            times((m) => m.clickedAt),
          ]
          const ordered = raw.orders.map(({ at }) => at)
          expect(kept).toMatchObject({
            joined_at: raw.joinedAt,
            sent: sent.length,
            last_sent_at: last(sent),
            sent_2nd_at: nthLast(sent, 2),
            sent_3rd_at: nthLast(sent, 3),
            sent_4th_at: nthLast(sent, 4),
            sent_5th_at: nthLast(sent, 5),
            opened: opened.length,
            last_opened_at: last(opened),
            clicked: clicked.length,
            last_clicked_at: last(clicked),
            orders: ordered.length,
            spent: raw.orders.reduce((sum, { money }) => sum + money, 0),
            first_order_at: ordered.length ? Math.min(...ordered) : null,
            last_order_at: last(ordered),
          })
          let keenness: Keenness = null
          for (const at of opened) keenness = withAct(keenness, 'open', at)
          for (const at of clicked) keenness = withAct(keenness, 'click', at)
          for (const at of times((m) => m.repliedAt)) keenness = withAct(keenness, 'reply', at)
          for (const at of ordered) keenness = withAct(keenness, 'order', at)
          if (keenness === null) expect(kept.keenness).toBeNull()
          else expect(kept.keenness).toBeCloseTo(keenness, 9)
          expect(tierOf(kept.keenness, now)).toBe(tierOf(keenness, now))
        }
      })
    }),
    { numRuns: 80 },
  )
}, 60_000)

test('comparing segments puts everybody into exactly one part', () => {
  fc.assert(
    fc.property(fc.array(person, { minLength: 1, maxLength: 8 }), (made) => {
      among(made, (ids) => {
        const parts = compareSegments(db, [1, 2, 3], now)
        expect(parts.reduce((sum, { n }) => sum + n, 0)).toBe(ids.length)
        for (const segment of [1, 2, 3])
          expect(
            parts.filter(({ of }) => of.includes(segment)).reduce((sum, { n }) => sum + n, 0),
          ).toBe(countMembers(db, { kind: 'segment', segmentId: segment }, now))
        // "Both" is made of the two others, so nobody is in it alone.
        expect(parts.some(({ of }) => of.length === 1 && of[0] === 3)).toBe(false)
      })
    }),
    { numRuns: 40 },
  )
})

const owners: Rule = { kind: 'tagged', tagId: 1 }
const maker = (tags: number[]): Made =>
  ({
    domain: 'inkpost.example',
    source: null,
    suppressed: null,
    pause: null,
    first: null,
    joinedAt: now,
    fields: {},
    tags,
    subscriptions: [],
    mail: {},
    orders: [],
    events: [],
    sequences: {},
    signUps: [],
    frozen: false,
  }) as Made

test('a frozen segment keeps its people while the rule moves on', () => {
  among([maker([1]), maker([1]), maker([])], ([first]) => {
    const frozen = freezeRule(db, 'Owners then', owners, now)
    run(db, q.deleteFrom('person_tags').where('person_id', '=', first!))
    expect(countMembers(db, owners, now)).toBe(1)
    expect(countMembers(db, { kind: 'segment', segmentId: frozen }, now)).toBe(2)
    expect(changeSegment(db, frozen, { name: 'x', rule: owners }, 1, now)).toBeNull()
  })
})

test('two who edit one segment: the second is told, and the first’s change stays', () => {
  transact(db, () => {
    const id = addSegment(db, 'Owners', owners, now)
    expect(changeSegment(db, id, { name: 'Owners, mine', rule: owners }, 1, now)).toBe(2)
    expect(changeSegment(db, id, { name: 'Owners, yours', rule: owners }, 1, now)).toBeNull()
    expect(segmentById(db, id)!.name).toBe('Owners, mine')
    deleteSegment(db, id, now)
  })
})

test('where a segment is used is known; one that is gone matches nobody, under any group', () => {
  among([maker([1]), maker([])], () => {
    const id = addSegment(db, 'Owners', owners, now)
    const other = addSegment(
      db,
      'Not owners',
      { kind: 'none', of: [{ kind: 'segment', segmentId: id }] },
      now,
    )
    expect(usesOfSegment(db, id).segments.map((use) => use.id)).toEqual([other])
    expect(countMembers(db, { kind: 'segment', segmentId: other }, now)).toBe(1)
    deleteSegment(db, id, now)
    expect(countMembers(db, { kind: 'segment', segmentId: other }, now)).toBe(0)
  })
})

test('a deleted segment is gone at once, can be brought back with its people for a day, and goes then', () => {
  const db = makeAccount()
  const people = [1, 2, 3].map((i) =>
    putPerson(
      db,
      { address: `p${i}@x.example`, normal: `p${i}@x.example`, domain: 'x.example', values: {} },
      0,
    )!,
  )
  const { id, people: kept } = freezePeople(db, 'By SQL', 'select 1', [...people, 999], 5)
  expect(kept).toBe(3)
  const members = () => countMembers(db, { kind: 'segment', segmentId: id }, now)
  expect(members()).toBe(3)
  expect(segmentById(db, id)).toMatchObject({ query: 'select 1', frozenAt: 5 })
  expect(deleteSegment(db, id, 10)).toBe(true)
  expect(deleteSegment(db, id, 11)).toBe(false)
  expect(segmentById(db, id)).toBeUndefined()
  expect(members()).toBe(0)
  expect(restoreSegment(db, id)).toBe(true)
  expect(restoreSegment(db, id)).toBe(false)
  expect(members()).toBe(3)
  deleteSegment(db, id, 20)
  const other = addSegment(db, 'Other', { kind: 'all', of: [] }, 21)
  deleteSegment(db, other, 21 + DAY)
  expect(restoreSegment(db, id)).toBe(false)
  expect(restoreSegment(db, other)).toBe(true)
})
