import fc from 'fast-check'
import { sql, type RawBuilder } from 'kysely'
import { beforeEach, expect, test } from 'vitest'
import { madeUpAccount, somebody } from '../made-up'
import {
  countPeople,
  domainCounts,
  peoplePage,
  personDetails,
  pulsesOf,
  type PeopleChoice,
} from './people'
import { peopleColumns, type PeopleOrder } from './order'
import { fold } from '../../core/segments'
import { forgetWords } from './search'
import { tagNamed } from './tags'
import { suppressPeople, tagPeople } from './changes'
import { q, raw, run, type Database } from '../query'

let db: Database
let list: number
beforeEach(() => ({ db, list } = madeUpAccount()))

const addresses = (choice: PeopleChoice, order?: PeopleOrder) =>
  peoplePage(db, choice, 1_000, 0, order).map(({ address }) => address.split('@')[0])

test('the latest come first; who came at the same time, the last added first', () => {
  somebody(db, 'a', { now: 5 })
  somebody(db, 'b', { now: 9 })
  somebody(db, 'c', { now: 5 })
  expect(addresses({})).toEqual(['b', 'c', 'a'])
  expect(addresses({}, { by: 'joined', descending: false })).toEqual(['a', 'c', 'b'])
})

test('names are sorted without regard to capitals, by last name first', () => {
  somebody(db, 'a', { values: { first_name: 'Zoe', last_name: 'adams' } })
  somebody(db, 'b', { values: { first_name: 'Ann', last_name: 'Brook' } })
  somebody(db, 'c', { values: { first_name: 'Amy', last_name: 'ADAMS' } })
  expect(addresses({}, { by: 'name', descending: false })).toEqual(['c', 'a', 'b'])
})

test('sorted by a field, those without a value come last either way', () => {
  somebody(db, 'a', { values: { town: 'Orrin' } })
  somebody(db, 'b')
  somebody(db, 'c', { values: { town: 'Brackwater' } })
  const by = { field: 'town' }
  expect(addresses({}, { by, descending: false })).toEqual(['c', 'a', 'b'])
  expect(addresses({}, { by, descending: true })).toEqual(['a', 'c', 'b'])
})

test('in whatever order and however it is cut into pages, everybody is shown once', () => {
  const person = fc.record({
    first_name: fc.constantFrom('Ann', 'ann', 'Zoe', ''),
    last_name: fc.constantFrom('Brook', 'adams', ''),
    joined: fc.integer({ min: 0, max: 3 }),
  })
  const by = fc.oneof(
    fc.constantFrom(...peopleColumns),
    fc.constantFrom({ field: 'town' }, { field: 'none' }),
  )
  fc.assert(
    fc.property(
      fc.array(person, { maxLength: 12 }),
      by,
      fc.boolean(),
      fc.integer({ min: 1, max: 5 }),
      (people, by, descending, size) => {
        ;({ db, list } = madeUpAccount())
        people.forEach(({ joined, ...values }, i) => {
          const town = i % 4 === 3 ? {} : { town: `T${i % 3}` }
          const id = somebody(db, `p${i}`, { values: { ...values, ...town }, now: joined })
          const facts = { spent: i % 3, last_opened_at: i % 2 ? i % 5 : null }
          run(db, q.updateTable('facts').set(facts).where('person_id', '=', id))
        })
        const shown: number[] = []
        for (let offset = 0; offset < people.length; offset += size)
          shown.push(...peoplePage(db, {}, size, offset, { by, descending }).map(({ id }) => id))
        expect(new Set(shown).size).toBe(people.length)
        expect(shown).toEqual(peoplePage(db, {}, 1_000, 0, { by, descending }).map(({ id }) => id))
        // From one page to the next by who came last.
        const followed = shown.slice(0, size)
        while (followed.length < people.length) {
          const from = { after: followed.at(-1)!, offset: 0 }
          const next = peoplePage(db, {}, size, from, { by, descending }).map(({ id }) => id)
          expect(next).not.toEqual([])
          followed.push(...next)
        }
        expect(followed).toEqual(shown)
      },
    ),
    { numRuns: 60 },
  )
})

test('part of an address or of a name finds people; all words must fit', () => {
  somebody(db, 'tove.wetherlam', { values: { first_name: 'Tove', last_name: 'Wetherlam' } })
  somebody(db, 'orla', { values: { first_name: 'Orla', last_name: 'Dunmarrow' } })
  somebody(db, 'ivo100%', { values: { first_name: 'Ivo', last_name: 'O_Hallow' } })
  const found = (search: string) => addresses({ search }).sort()
  expect(found('wether')).toEqual(['tove.wetherlam'])
  expect(found('orla dun')).toEqual(['orla'])
  expect(found('orla wether')).toEqual([])
  expect(found('.WETHER')).toEqual(['tove.wetherlam'])
  somebody(db, 'bo', { values: { first_name: 'Bo', last_name: 'Nguyễn-Čapková' } })
  somebody(db, 'jo', { values: { first_name: 'Jo', last_name: 'C\u030Capkova' } })
  expect(found('nguyen')).toEqual(['bo'])
  expect(found('capkova')).toEqual(['bo', 'jo'])
  expect(found('ČAPKOVÁ')).toEqual(['bo', 'jo'])
  expect(found('inkpost.example')).toHaveLength(5)
  expect(found('100%')).toEqual(['ivo100%'])
  expect(found('%')).toEqual(['ivo100%'])
  expect(found('o_h')).toEqual(['ivo100%'])
  expect(found("'; drop table people; --")).toEqual([])
})

test('whatever is looked for, found are those who have it, also after they changed or went', () => {
  const text = fc.stringMatching(/^[abeéễ\u0301ÉA.%"_ '1]{1,7}$/)
  const name = fc.option(text)
  fc.assert(
    fc.property(
      fc.array(fc.record({ first: name, last: name, changed: fc.option(name) }), { maxLength: 8 }),
      fc.array(
        text.filter((one) => one.trim() !== ''),
        { minLength: 1, maxLength: 5 },
      ),
      (people, searches) => {
        ;({ db, list } = madeUpAccount())
        const now = people.map(({ first, last, changed }, i) => {
          const id = somebody(db, `ab${i}.1`, { values: {} })
          run(
            db,
            q
              .updateTable('people')
              .set({ first_name: first, last_name: last })
              .where('id', '=', id),
          )
          if (changed !== null)
            run(db, q.updateTable('people').set({ last_name: changed }).where('id', '=', id))
          return { id, first, last: changed ?? last, normal: `ab${i}.1@inkpost.example` }
        })
        const gone = now.shift()
        if (gone) run(db, q.deleteFrom('people').where('id', '=', gone.id))
        forgetWords(db)
        const plain = (text: string | null) => fold(text ?? '')
        for (const search of searches) {
          const words = plain(search).split(/\s+/).filter(Boolean)
          const fits = now.filter(
            ({ first, last, normal }) =>
              normal.includes(search.toLowerCase()) ||
              (words.length > 0 &&
                !/[@.\d]/.test(search) &&
                words.every((word) => plain(first).includes(word) || plain(last).includes(word))),
          )
          const found = peoplePage(db, { search }, 100, 0).map(({ id }) => id)
          expect(found.toSorted()).toEqual(fits.map(({ id }) => id).toSorted())
          expect(countPeople(db, { search })).toBe(fits.length)
        }
      },
    ),
    { numRuns: 150 },
  )
}, 60_000)

test('what more than a few thousand have in common is found in its order, too', () => {
  db.sqlite.exec(`
    with recursive s(i) as (select 1 union all select i + 1 from s where i < 6000)
    insert into people (address, normal, domain, last_name, joined_at, changed_at)
      select 'x' || i || '@harbourmail.example', 'x' || i || '@harbourmail.example', 'harbourmail.example', 'Sailor', i, i from s`)
  const first = (search: string, by: PeopleOrder['by']) =>
    peoplePage(db, { search }, 3, 1, { by, descending: true }).map(
      ({ address }) => address.split('@')[0],
    )
  for (const search of ['mail.ex', 'sailor', 'mai']) {
    expect(first(search, 'joined')).toEqual(['x5999', 'x5998', 'x5997'])
    expect(first(search, 'address')).toEqual(['x99', 'x999', 'x998'])
    expect(first(search, 'spent')).toEqual(['x5999', 'x5998', 'x5997'])
    expect(first(search, { field: 'town' })).toHaveLength(3)
    expect(countPeople(db, { search })).toBe(6_000)
  }
})

test('on a list, suppressed, and both with a search; the count agrees', () => {
  const tove = somebody(db, 'tove', { list })
  somebody(db, 'orla', { list })
  somebody(db, 'ivo')
  suppressPeople(db, [tove], 'by hand', 3)
  for (const [choice, found] of [
    [{ listId: list }, ['orla', 'tove']],
    [{ suppressed: true }, ['tove']],
    [{ listId: list, search: 'or' }, ['orla']],
    [{ listId: 99 }, []],
    [{}, ['ivo', 'orla', 'tove']],
  ] as const) {
    expect(addresses(choice).sort()).toEqual(found)
    expect(countPeople(db, choice)).toBe(found.length)
  }
})

test('a pulse has the last twelve mailings, the newest last', () => {
  const tove = somebody(db, 'tove')
  run(
    db,
    q
      .insertInto('letters')
      .values({ id: 1, subject: '', preview_text: '', document: '', version: 1, updated_at: 0 }),
  )
  const states = [
    { state: 'accepted' },
    { state: 'failed' },
    { state: 'accepted', opened_at: 5 },
    { state: 'accepted', opened_at: 5, clicked_at: 6 },
    { state: 'dropped' },
    { state: 'bounced' },
    { state: 'complained' },
    ...Array.from({ length: 7 }, () => ({ state: 'accepted' as const })),
  ] as { state: 'accepted'; opened_at?: number; clicked_at?: number }[]
  states.forEach((row, i) => {
    run(
      db,
      q
        .insertInto('mailings')
        .values({ id: i + 1, name: '', state: 'sent', list_id: list, letter_id: 1, created_at: 0 }),
    )
    run(
      db,
      q
        .insertInto('recipients')
        .values({ mailing_id: i + 1, person_id: tove, at: 1, due: 1, ...row }),
    )
  })
  expect(pulsesOf(db, [tove, 99]).get(tove)).toEqual([
    'opened',
    'clicked',
    'not-sent',
    'bounced',
    ...Array.from({ length: 8 }, () => 'delivered'),
  ])
  expect(pulsesOf(db, [tove, 99]).get(99)).toEqual([])
})

test('a person’s details, and nothing where there is nobody', () => {
  const tove = somebody(db, 'tove', { list, values: { town: 'Orrin' }, now: 7 })
  tagPeople(db, [tove], tagNamed(db, 'club'), true)
  tagPeople(db, [tove], tagNamed(db, 'Alder'), true)
  const details = personDetails(db, tove)!
  expect(details.person).toMatchObject({ address: 'tove@inkpost.example', joined_at: 7 })
  expect(details.tags).toEqual(['Alder', 'club'])
  expect(details.subscriptions).toMatchObject([{ name: 'Wind notes', state: 'subscribed' }])
  expect(details.evidence).toMatchObject([
    { way: 'form', list: 'Wind notes', wording: 'I want it.' },
  ])
  expect(details.suppressed).toBeNull()
  expect(personDetails(db, 4_711)).toBeNull()
})

test('how many have an address at each domain', () => {
  for (const name of ['a', 'b', 'c@oldmill.example']) somebody(db, name)
  expect(domainCounts(db)).toEqual(
    new Map([
      ['inkpost.example', 2],
      ['oldmill.example', 1],
    ]),
  )
})

test('a page of very many is the same as of few: on a list, with a tag, suppressed, of a segment, in any order', () => {
  const MANY = 10_200
  const range = sql`with recursive n(i) as (select 1 union all select i + 1 from n where i < ${MANY + 300})`
  const at = sql`(i * 7919) % 100003`
  run(db, raw(sql`insert into tags (id, name, color) values (1, 'many', 'plain')`))
  run(
    db,
    raw(sql`${range} insert into people (id, address, normal, domain, first_name, last_name, fields, joined_at, changed_at)
      select i, 'r' || i || '@x.example', 'r' || i || '@x.example', 'x.example', 'F' || i % 17, 'L' || i % 89, '{}', ${at}, 0 from n`),
  )
  const insert = (into: RawBuilder<unknown>, values: RawBuilder<unknown>) =>
    run(
      db,
      raw(
        sql`insert into ${into} select ${values} from people where id > 150 and id <= ${MANY + 150}`,
      ),
    )
  insert(sql`subscriptions (person_id, list_id, state, since)`, sql`id, ${list}, 'subscribed', 0`)
  insert(sql`person_tags (person_id, tag_id)`, sql`id, 1`)
  insert(sql`set_aside (person_id, at, reason, detail)`, sql`id, 0, 'bounced', ''`)
  run(
    db,
    raw(sql`update facts set spent = ${sql`(person_id * 31) % 977`}, keenness = person_id % 613`),
  )
  const among = sql`select id as person_id from people where id > 150 and id <= ${MANY + 150}`
  for (const by of peopleColumns)
    for (const descending of [true, false]) {
      const order = { by, descending }
      const whole = peoplePage(db, {}, MANY + 300, 0, order)
      const expected = whole.filter(({ id }) => id > 150 && id <= MANY + 150).map(({ id }) => id)
      for (const choice of [{ listId: list }, { tagId: 1 }, { suppressed: true }, { among }]) {
        const ids = (from: number | { after: number; offset: number }) =>
          peoplePage(db, choice, 40, from, order).map(({ id }) => id)
        expect([by, ids(0)]).toEqual([by, expected.slice(0, 40)])
        expect([by, ids({ after: expected[39]!, offset: 40 })]).toEqual([
          by,
          expected.slice(40, 80),
        ])
      }
    }
})
