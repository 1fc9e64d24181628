import fc from 'fast-check'
import { beforeEach, expect, test } from 'vitest'
import { fieldKinds, type FieldKind, type FieldValue } from '../../core/people'
import type { Rule } from '../../core/segments'
import {
  addField,
  changeField,
  countValues,
  mergeField,
  ownFields,
  previewRetyping,
  readFields,
  retypeField,
} from './fields'
import { mappingFor, rememberMapping } from '../imports'
import { addList, changeList, listById } from './lists'
import { madeUpAccount, somebody } from '../made-up'
import { valuesOf } from './people'
import { tagPeople } from './changes'
import { all, q, type Database } from '../query'
import { rewriteRules } from './rewrite-rules'
import { addSegment, countMembers, readCatalog, segmentById } from '../segments'
import { changeTag, deleteTag, joinTags, tagNamed, tagsWithCounts } from './tags'

let db: Database
let list: number
beforeEach(() => {
  ;({ db, list } = madeUpAccount())
  addField(db, { key: 'town', name: 'Town', kind: 'text' })
  addField(db, { key: 'place', name: 'Place', kind: 'text' })
})
const values = () =>
  all(db, q.selectFrom('people').selectAll().orderBy('id')).map((row) => valuesOf(row))
const run = (steps: Generator) => [...steps].length

test('fields are counted by who has a value', () => {
  somebody(db, 'a', { values: { town: 'Orrin', place: 'x' } })
  somebody(db, 'b', { values: { town: 'Stannow' } })
  expect(countValues(db)).toEqual(
    new Map([
      ['town', 2],
      ['place', 1],
    ]),
  )
})

test('a retired field is not offered, keeps its values, and rules go on', () => {
  somebody(db, 'a', { values: { town: 'Orrin' } })
  const rule: Rule = { kind: 'field', key: 'town', test: { is: 'equal', text: 'Orrin' } }
  changeField(db, 'town', { retired_at: 5 })
  expect(readFields(db).map(({ key }) => key)).toEqual(['first_name', 'last_name', 'place'])
  expect(ownFields(db)).toMatchObject([{ key: 'town', retired_at: 5 }, { key: 'place' }])
  expect(countMembers(db, rule, 10)).toBe(1)
  expect(readCatalog(db).fields.get('town')).toEqual({ name: 'Town', kind: 'text' })
  changeField(db, 'town', { retired_at: null, name: 'Home town' })
  expect(readFields(db)[2]).toEqual({ key: 'town', name: 'Home town', kind: 'text' })
})

test('made another kind: what was said before is what comes of it', () => {
  const before = ['12', '12.5', 'many', '3 ', '2026-11-23', 'yes']
  before.forEach((town, i) => somebody(db, `p${i}`, { values: { town } }))
  somebody(db, 'none')
  expect(previewRetyping(db, 'town', 'number')).toEqual({
    kept: 3,
    lost: 3,
    examples: ['many', '2026-11-23', 'yes'],
  })
  run(retypeField(db, 'town', 'number', 9))
  expect(values().map((one) => one.town)).toEqual([
    12,
    12.5,
    undefined,
    3,
    undefined,
    undefined,
    undefined,
  ])
  expect(ownFields(db)[0]).toMatchObject({ kind: 'number' })
})

test('to whatever kind, the preview counts just what is kept; doing it again changes nothing', () => {
  const value = fc.oneof(
    fc.constantFrom<FieldValue>(
      'Orrin',
      '5',
      '2026-11-23',
      'yes',
      'a, b',
      'https://x.example',
      7,
      true,
    ),
    fc.constant<FieldValue>(['stunt', 'power']),
  )
  fc.assert(
    fc.property(
      fc.array(fc.option(value, { nil: undefined }), { maxLength: 8 }),
      fc.constantFrom<FieldKind>(...fieldKinds),
      (had, kind) => {
        ;({ db, list } = madeUpAccount())
        addField(db, { key: 'town', name: 'Town', kind: 'text' })
        had.forEach((town, i) =>
          somebody(db, `p${i}`, { values: town === undefined ? {} : { town } }),
        )
        const { kept, lost } = previewRetyping(db, 'town', kind)
        expect(kept + lost).toBe(had.filter((one) => one !== undefined).length)
        run(retypeField(db, 'town', kind, 9))
        const after = values()
        expect(after.filter((one) => one.town !== undefined)).toHaveLength(kept)
        expect(previewRetyping(db, 'town', kind)).toEqual({ kept, lost: 0, examples: [] })
        run(retypeField(db, 'town', kind, 9))
        expect(values()).toEqual(after)
      },
    ),
    { numRuns: 80 },
  )
})

test('joined to another, a field’s values go where there is none, and it is gone', () => {
  somebody(db, 'a', { values: { town: 'Orrin' } })
  somebody(db, 'b', { values: { town: 'Orrin', place: 'Stannow' } })
  somebody(db, 'c', { values: { place: 'Merewick' } })
  run(mergeField(db, 'town', 'place', 9))
  expect(values()).toEqual([{ place: 'Orrin' }, { place: 'Stannow' }, { place: 'Merewick' }])
  expect(ownFields(db).map(({ key }) => key)).toEqual(['place'])
})

test('more people than a batch are all changed, batch by batch', () => {
  db.sqlite.transaction(() => {
    for (let i = 0; i < 4_500; i++) somebody(db, `p${i}`, { values: { town: String(i) } })
  })()
  expect(run(retypeField(db, 'town', 'number', 9))).toBe(2)
  expect(values().every(({ town }, i) => town === i)).toBe(true)
})

test('tags: renamed unless another has the name, coloured, counted', () => {
  const tove = somebody(db, 'tove')
  const club = tagNamed(db, 'club')
  const press = tagNamed(db, 'press')
  tagPeople(db, [tove], club, true)
  expect(changeTag(db, club, { name: 'press' })).toBe('taken')
  expect(changeTag(db, club, { name: 'Club', color: 'green' })).toBe('changed')
  expect(changeTag(db, club, { name: 'Club' })).toBe('changed')
  expect(changeTag(db, 99, { name: 'x' })).toBe('gone')
  expect(tagsWithCounts(db)).toEqual([
    { id: club, name: 'Club', color: 'green', people: 1 },
    { id: press, name: 'press', color: 'plain', people: 0 },
  ])
})

test('joined tags: everybody has the other, each once, and rules ask for the other', () => {
  const [tove, ivo] = [somebody(db, 'tove'), somebody(db, 'ivo')]
  const [club, press] = [tagNamed(db, 'club'), tagNamed(db, 'press')]
  tagPeople(db, [tove, ivo], club, true)
  tagPeople(db, [tove], press, true)
  const segment = addSegment(
    db,
    'Both',
    {
      kind: 'any',
      of: [
        { kind: 'tagged', tagId: club },
        { kind: 'none', of: [{ kind: 'tagged', tagId: press }] },
      ],
    },
    0,
  )
  expect(joinTags(db, club, club)).toBe(false)
  expect(joinTags(db, club, 99)).toBe(false)
  expect(joinTags(db, club, press)).toBe(true)
  expect(tagsWithCounts(db)).toMatchObject([{ name: 'press', people: 2 }])
  expect(segmentById(db, segment)).toMatchObject({
    version: 2,
    rule: {
      of: [{ tagId: press }, { of: [{ tagId: press }] }],
    },
  })
})

test('a rule that asks for a tag that is gone matches nobody', () => {
  const tove = somebody(db, 'tove')
  const club = tagNamed(db, 'club')
  tagPeople(db, [tove], club, true)
  const rule: Rule = { kind: 'none', of: [{ kind: 'tagged', tagId: club }] }
  deleteTag(db, club)
  expect(deleteTag(db, club)).toBe(false)
  expect(countMembers(db, rule, 5)).toBe(0)
})

test('rules that a change does not touch keep their version', () => {
  const id = addSegment(db, 'Keen', { kind: 'tier', of: ['keen'] }, 0)
  rewriteRules(db, (part) => part)
  expect(segmentById(db, id)!.version).toBe(1)
})

test('a list has a name of its own for readers; its key stays', () => {
  expect(listById(db, list)).toMatchObject({ name: 'Wind notes', public_name: 'Wind notes' })
  const change = { name: 'Weekly', description: 'd', public_name: 'The wind', public_about: 'a' }
  expect(changeList(db, list, change)).toBe(true)
  expect(changeList(db, 99, change)).toBe(false)
  expect(listById(db, list)).toMatchObject({ ...change, key: 'wind-notes' })
})

const plan = { column: 0, header: 'Mail', samples: ['x'], target: { to: 'address' as const } }
const choices = { mode: 'add' as const, clearEmpty: true, listId: null }

test('how a file was taken is remembered by its header, whatever its capitals', () => {
  rememberMapping(db, ['Mail', 'Town'], [plan], choices, 5)
  rememberMapping(db, ['Mail', 'Town'], [plan], { ...choices, listId: list }, 6)
  expect(mappingFor(db, ['mail ', 'TOWN'])).toEqual({
    plans: [{ ...plan, samples: [] }],
    choices: { ...choices, listId: list },
    usedAt: 6,
  })
  expect(mappingFor(db, ['Mail'])).toBeNull()
})

test('what is remembered of fields and lists that are gone is left out; a field it made is taken', () => {
  const other = addList(db, { name: 'Offers', description: '' }, 0)
  const of = (column: number, target: object) => ({ ...plan, column, target: target as never })
  rememberMapping(
    db,
    ['a', 'b', 'c', 'd'],
    [
      of(0, { to: 'field', key: 'gone' }),
      of(1, { to: 'list', listId: 99 }),
      of(2, { to: 'list', listId: other }),
      of(3, { to: 'new-field', key: 'town', name: 'Town', kind: 'text' }),
    ],
    { ...choices, listId: 99 },
    5,
  )
  const found = mappingFor(db, ['a', 'b', 'c', 'd'])!
  expect(found.plans.map(({ column, target }) => [column, target])).toEqual([
    [2, { to: 'list', listId: other }],
    [3, { to: 'field', key: 'town' }],
  ])
  expect(found.choices.listId).toBeNull()
})
