import { expect, test } from 'vitest'
import { sequenceProblems } from '../cases/sequences'
import {
  emptyMap,
  insertStep,
  mapProblems,
  readMap,
  type Act,
  type MapMark,
} from '../core/sequences'
import { madeUpAccount, somebody } from '../database/made-up'
import {
  addField,
  addList,
  changeSubscription,
  everythingKnown,
  readerById,
  suppress,
  tasksOf,
  valuesOf,
} from '../database/people'
import {
  addSequence,
  changeSequence,
  enrolPerson,
  roundsOf,
  sequenceById,
  startSequence,
} from '../database/sequences'
import { madeUpEngine } from './made-up'
import { runSequences } from './run-sequences'

const { db, list } = madeUpAccount()
const engine = madeUpEngine(db)
const titles = (marks: readonly MapMark[]) => marks.map(({ title }) => title)
async function settle() {
  while (await runSequences(engine));
}
function running(name: string, acts: Act[]): number {
  const id = addSequence(db, name, list, 0)
  const start = { by: [], again: { is: 'never' as const }, rule: null }
  const map = insertStep({ ...emptyMap, start }, null, 'do', { kind: 'do', acts })
  const waits = insertStep(map, 'do', 'wait', { kind: 'wait', ms: 86_400_000 })
  changeSequence(db, sequenceById(db, id)!, { name, listId: list, map: waits }, 1)
  expect(startSequence(db, sequenceById(db, id)!, engine.time.now)).toBe(true)
  return id
}

test('a step subscribes by the words that were agreed to, and never who left or is suppressed', async () => {
  const other = addList(db, { name: 'Offers', description: '' }, 0)
  const id = running('Asks', [{ is: 'join', listId: other, statement: 'I want offers.' }])
  const [fresh, gone, aside] = ['fresh', 'gone', 'aside'].map((name) =>
    somebody(db, name, { list, now: engine.time.now }),
  ) as [number, number, number]
  const by = { act: 'person' as const, way: 'form', wording: 'Yes.' }
  for (const state of ['subscribed', 'unsubscribed'] as const)
    changeSubscription(db, gone, other, state, by, engine.time.now)
  for (const one of [fresh, gone, aside]) enrolPerson(db, id, one, engine.time.now)
  suppress(db, aside, 'by-hand', '', engine.time.now)
  await settle()
  const on = (person: number) =>
    everythingKnown(db, person)!.subscriptions.find((one) => one.list === 'Offers')?.state
  expect([on(fresh), on(gone), on(aside)]).toEqual(['subscribed', 'unsubscribed', undefined])
  expect(everythingKnown(db, fresh)!.evidence.at(-1)).toMatchObject({
    ...{ list: 'Offers', way: 'sequence', wording: 'I want offers.' },
  })
})

test('who is taken out of another sequence by a step gets nothing of it that was due at the same moment', async () => {
  const other = running('Other', [{ is: 'tag', tag: 'of the other' }])
  const first = running('Stops', [{ is: 'stop', sequenceId: other }])
  const kari = somebody(db, 'kari', { list, now: engine.time.now })
  enrolPerson(db, first, kari, engine.time.now)
  enrolPerson(db, other, kari, engine.time.now)
  // Both are due, and the one that stops the other stands before it.
  const due = db.sqlite.prepare(
    'update enrolments set due = ? where sequence_id = ? and person_id = ?',
  )
  due.run(engine.time.now - 2, first, kari)
  due.run(engine.time.now - 1, other, kari)
  await settle()
  expect(roundsOf(db, other, kari)).toMatchObject([{ state: 'left' }])
  expect(everythingKnown(db, kari)!.tags).not.toContain('of the other')
})

test('a step adds to a number and to choices, and leaves alone what nothing can be added to', async () => {
  const [points, likes, town] = ['points', 'likes', 'their_town'] as const
  addField(db, { key: points, name: 'Points', kind: 'number' })
  addField(db, { key: likes, name: 'Likes', kind: 'choices' })
  addField(db, { key: town, name: 'Their town', kind: 'text' })
  const id = running('Counts', [
    ...['0.1', '0.2', 'many'].map((value) => ({ is: 'add' as const, field: points, value })),
    ...['kites', 'boats, kites'].map((value) => ({ is: 'add' as const, field: likes, value })),
    { is: 'add', field: town, value: 'Sandreach' },
    { is: 'add', field: 'gone', value: '1' },
  ])
  const dag = somebody(db, 'dag', { list, values: { [points]: 5, [likes]: ['sails'] } })
  const new_ = somebody(db, 'new', { list })
  for (const one of [dag, new_]) enrolPerson(db, id, one, engine.time.now)
  await settle()
  const values = (person: number) => valuesOf(readerById(db, person)!)
  expect(values(dag)).toMatchObject({ [points]: 5.3, [likes]: ['sails', 'kites', 'boats'] })
  expect(values(new_)).toMatchObject({ [points]: 0.3, [likes]: ['kites', 'boats'] })
  expect(values(dag)[town]).toBeUndefined()
})

test('a step takes people out of another sequence, and writes a note on them', async () => {
  const first = running('First', [{ is: 'note', text: 'Was here.' }])
  const second = running('Second', [{ is: 'stop', sequenceId: first }])
  const tove = somebody(db, 'tove', { list, now: engine.time.now })
  enrolPerson(db, first, tove, engine.time.now)
  await settle()
  expect(everythingKnown(db, tove)!.notes).toMatchObject([{ by_name: 'First', text: 'Was here.' }])
  expect(roundsOf(db, first, tove)).toMatchObject([{ state: 'inside' }])
  enrolPerson(db, second, tove, engine.time.now)
  await settle()
  expect(roundsOf(db, first, tove)).toMatchObject([{ state: 'left' }])
  const { sequences } = everythingKnown(db, tove)!
  expect(sequences.find(({ name }) => name === 'First')).toMatchObject({
    why: 'taken out by Second',
  })
})

test('a step gives the team a task about who comes by, due some days later on the account’s calendar', async () => {
  const to = 'wren@galewright.example'
  const id = running('Calls', [
    { is: 'task', text: 'Ring them', days: 2, to },
    { is: 'task', text: 'Look at it', days: 0, to: '' },
  ])
  // On the account's calendar it is July already.
  engine.time.now = Date.parse('2027-06-30T23:30:00Z')
  const una = somebody(db, 'una', { list, now: engine.time.now })
  enrolPerson(db, id, una, engine.time.now)
  await settle()
  await settle()
  const by = 'Calls'
  expect(tasksOf(db, una)).toMatchObject([
    { text: 'Look at it', due: '2027-07-01', for: null, by, done: null },
    { text: 'Ring them', due: '2027-07-03', for: to, by, done: null },
  ])
})

test('a field that is gone, or holds something else, is said before a step sets it or adds to it', () => {
  addField(db, { key: 'visits', name: 'Visits', kind: 'number' })
  addField(db, { key: 'port', name: 'Port', kind: 'text' })
  const lacks = (act: Act) => {
    const id = addSequence(db, 'Sets', list, 0)
    const map = insertStep(emptyMap, null, 'do', { kind: 'do', acts: [act] })
    changeSequence(db, sequenceById(db, id)!, { name: 'Sets', listId: list, map }, 1)
    return titles(sequenceProblems(db, sequenceById(db, id)!, engine.time.now))
  }
  expect(lacks({ is: 'add', field: 'visits', value: '1' })).toEqual([])
  expect(lacks({ is: 'set', field: 'visits', value: '' })).toEqual([])
  expect(lacks({ is: 'set', field: 'port', value: 'Orrin' })).toEqual([])
  expect(lacks({ is: 'set', field: 'visits', value: 'many' })).toEqual([
    '“many” is no value of the field Visits.',
  ])
  expect(lacks({ is: 'add', field: 'visits', value: 'many' })).toEqual([
    '“many” is no value of the field Visits.',
  ])
  expect(lacks({ is: 'add', field: 'port', value: '1' })).toEqual([
    'Nothing can be added to the field Port: only to numbers and to choices.',
  ])
  expect(lacks({ is: 'set', field: 'gone', value: '1' })).toEqual([
    'A field that is to be set, or added to, is gone.',
  ])
})

test('what these steps lack is said, and what is none of them is not read', () => {
  const map = (act: object) =>
    readMap(
      JSON.parse(
        JSON.stringify(insertStep(emptyMap, null, 'do', { kind: 'do', acts: [act as Act] })),
      ),
    )
  for (const [act, lacks] of [
    [{ is: 'join', listId: 0, statement: 'x' }, /which/],
    [{ is: 'join', listId: 1, statement: ' ' }, /agreed to/],
    [{ is: 'note', text: '' }, /no words/],
    [{ is: 'task', text: ' ', days: 1, to: '' }, /which/],
    [{ is: 'stop', sequenceId: 0 }, /which/],
  ] as const)
    expect(titles(mapProblems(map(act)!, list)).join()).toMatch(lacks)
  for (const act of [
    { is: 'join', listId: 1 },
    { is: 'note', text: 7 },
    { is: 'task', text: 'Ring', days: -1, to: '' },
    { is: 'task', text: 'Ring', days: 400, to: '' },
    { is: 'task', text: 'Ring', days: 1 },
    { is: 'stop', sequenceId: -1 },
  ])
    expect(map(act)).toBeNull()
})
