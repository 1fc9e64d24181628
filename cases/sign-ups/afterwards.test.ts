import { beforeEach, expect, test } from 'vitest'
import { emptyMap } from '../../core/sequences'
import { HOUR } from '../../core/time'
import { all, q, type Database } from '../../database'
import { madeUpAccount, somebody } from '../../database/made-up'
import { addField, personByAddress, personDetails, valuesOf } from '../../database/people'
import { addSequence, changeSequence, sequenceById, startSequence } from '../../database/sequences'
import { confirmSending } from './confirm'
import { madeUpForm, seenForm, sendIn } from './made-up'
import type { SignUpForm } from '../../core/sign-ups'

let db: Database
let wind: number
// Half past nine in the morning of a day in winter, where the account is.
const START = Date.UTC(2026, 10, 23, 9, 30)
const tove = 'tove@inkpost.example'

beforeEach(() => {
  ;({ db, list: wind } = madeUpAccount())
})

/** Somebody sends a form in that does something afterwards, and confirms it. */
function signUp(over: Partial<SignUpForm>, values = {}, at = START) {
  const seen = seenForm(db, madeUpForm([wind], over))
  sendIn(db, seen, tove, [`list${wind}`], at, { values })
  confirmSending(db, { id: 1 }, { ip: null, agent: null }, at)
}
const sending = () => all(db, q.selectFrom('sign_up_sendings').selectAll())[0]!

test('a form sets values of fields, unless somebody enters their own; what is no value any more is left out', () => {
  addField(db, { key: 'came_by', name: 'Came by', kind: 'text' })
  addField(db, { key: 'since', name: 'Since', kind: 'date' })
  const values = [
    { field: 'came_by', value: 'the guide' },
    { field: 'first_name', value: 'Friend' },
    { field: 'since', value: 'soon' },
    { field: 'gone', value: 'x' },
  ]
  signUp({ values }, { first_name: 'Tove' })
  const { person } = personDetails(db, personByAddress(db, tove)!)!
  expect(valuesOf(person)).toEqual({ first_name: 'Tove', came_by: 'the guide' })
})

test('a sequence begins for who confirms, once, and only where they are on its list', () => {
  const begun = (list: number) => {
    const id = addSequence(db, 'First week', list, START)
    const steps = { wait: { kind: 'wait' as const, ms: HOUR, next: null } }
    const map = { ...emptyMap, start: { ...emptyMap.start, by: [] } }
    const change = { name: 'First week', listId: list, map: { ...map, first: 'wait', steps } }
    expect(changeSequence(db, sequenceById(db, id)!, change, 1)).toBe(true)
    startSequence(db, sequenceById(db, id)!, START)
    return id
  }
  const id = begun(wind)
  signUp({ sequenceId: id })
  const inside = () => all(db, q.selectFrom('enrolments').select(['sequence_id', 'person_id']))
  expect(inside()).toEqual([{ sequence_id: id, person_id: personByAddress(db, tove)! }])
})

test('the team is told at once, or at eight in the morning of the next day', () => {
  signUp({ tell: { how: 'daily', to: 'wren@galewright.example' } })
  expect(new Date(sending().tell_due!).toISOString()).toBe('2026-11-24T08:00:00.000Z')
})

test('before eight, the day’s own mail tells of it', () => {
  const early = START - 3 * HOUR
  signUp({ tell: { how: 'daily', to: 'wren@galewright.example' } }, {}, early)
  expect(new Date(sending().tell_due!).toISOString()).toBe('2026-11-23T08:00:00.000Z')
})

test('a program is told who confirmed, by what words and where from; nobody on file is told before', () => {
  somebody(db, 'wren')
  const seen = seenForm(db, madeUpForm([wind], { webhook: 'https://shop.example/hook' }))
  sendIn(db, seen, tove, [`list${wind}`], START, { values: { first_name: 'Tove' } })
  const calls = () => all(db, q.selectFrom('webhook_calls').selectAll())
  expect(calls()).toEqual([])
  confirmSending(db, { id: 1 }, { ip: null, agent: null }, START)
  confirmSending(db, { id: 1 }, { ip: null, agent: null }, START)
  const [call, ...more] = calls()
  expect(more).toEqual([])
  expect(call).toMatchObject({ url: 'https://shop.example/hook', due: START, taken: 0 })
  expect(JSON.parse(call!.body)).toEqual({
    ...{ event: 'sign-up confirmed', id: 1, language: 'en', source: {} },
    ...{ sent_in: '2026-11-23T09:30:00.000Z', confirmed: '2026-11-23T09:30:00.000Z' },
    sign_up: { id: 1, name: 'Twelve beaches', version: 1 },
    person: {
      ...{ id: personByAddress(db, tove), address: tove },
      values: { first_name: 'Tove' },
    },
    lists: [{ id: wind, name: 'Wind notes', wording: `Send me list ${wind}.` }],
    page: 'https://galewright.example/',
  })
})
