import { beforeEach, expect, test } from 'vitest'
import {
  addApiToken,
  answerBefore,
  apiTokens,
  EntryFault,
  keepAnswer,
  revokeApiToken,
  takeBatch,
  takeEvent,
  takeOrder,
  takePerson,
  useApiToken,
  type ApiOrder,
  type ApiPerson,
} from './api'
import { erasePerson, personDetails, changeSubscription } from '../people'
import { madeUpAccount, somebody } from '../made-up'
import { all, one, q, type Database } from '../query'

let db: Database
let list: number
beforeEach(() => ({ db, list } = madeUpAccount()))

const person = (over: Partial<ApiPerson> = {}): ApiPerson => ({
  address: 'Tove@inkpost.example',
  values: {},
  tags: [],
  lists: [],
  ...over,
})
const order = (over: Partial<ApiOrder> = {}): ApiOrder => ({
  number: 'G-1',
  address: 'tove@inkpost.example',
  at: 50,
  items: [
    { product: 'delta-7', name: 'Delta 7', category: 'stunt', quantity: 2, money: 9_400 },
    { product: 'spar', name: 'Spar', category: 'parts', quantity: 1, money: 600 },
  ],
  ...over,
})

test('a token is shown once, works until it is revoked, and only its hash is on file', () => {
  const { id, token } = addApiToken(db, 'Practice shop', 10)
  expect(useApiToken(db, token, 20)).toBe(id)
  expect(apiTokens(db)).toEqual([{ id, name: 'Practice shop', created_at: 10, last_used_at: 20 }])
  expect(JSON.stringify(all(db, q.selectFrom('api_tokens').selectAll()))).not.toContain(token)
  expect(useApiToken(db, `${token}x`, 21)).toBeNull()
  expect(revokeApiToken(db, id, 30)).toBe(true)
  expect(revokeApiToken(db, id, 31)).toBe(false)
  expect(useApiToken(db, token, 32)).toBeNull()
  expect(apiTokens(db)).toEqual([])
})

test('a key answers the same request as before, and refuses another body', () => {
  const { id } = addApiToken(db, 'Shop', 0)
  const { id: other } = addApiToken(db, 'Desk', 0)
  expect(answerBefore(db, id, 'k', '[1]')).toBeNull()
  keepAnswer(db, id, 'k', '[1]', 200, '{"taken":1}', 5)
  keepAnswer(db, id, 'k', '[1]', 500, 'later', 6)
  expect(answerBefore(db, id, 'k', '[1]')).toEqual({ status: 200, answer: '{"taken":1}' })
  expect(answerBefore(db, id, 'k', '[2]')).toBe('spent')
  expect(answerBefore(db, other, 'k', '[1]')).toBeNull()
})

test('an answer is forgotten after seven days', () => {
  const { id } = addApiToken(db, 'Shop', 0)
  const DAY = 86_400_000
  keepAnswer(db, id, 'old', '[1]', 200, '1', 0)
  keepAnswer(db, id, 'young', '[1]', 200, '2', 6 * DAY)
  keepAnswer(db, id, 'now', '[1]', 200, '3', 8 * DAY)
  expect(answerBefore(db, id, 'old', '[2]')).toBeNull()
  expect(answerBefore(db, id, 'young', '[1]')).toEqual({ status: 200, answer: '2' })
})

test('one faulty entry leaves the others, and nothing of itself', () => {
  const results = takeBatch(db, ['a', 'bad', 'b'], (name) => {
    somebody(db, name)
    if (name === 'bad') throw new EntryFault('lists[0].list', 'There is no such list.')
    return 'added'
  })
  expect(results).toEqual([
    { index: 0, status: 'added' },
    { index: 1, status: 'refused', path: 'lists[0].list', message: 'There is no such list.' },
    { index: 2, status: 'added' },
  ])
  expect(all(db, q.selectFrom('people').select('normal'))).toHaveLength(2)
})

test('what is no fault of an entry stops the batch and leaves nothing of it', () => {
  expect(() =>
    takeBatch(db, ['a', 'b'], (name) => {
      somebody(db, name)
      if (name === 'b') throw new Error('the disk is full')
      return 'added'
    }),
  ).toThrow('the disk is full')
  expect(all(db, q.selectFrom('people').select('normal'))).toEqual([])
})

test('a person is added, then changed, then unchanged', () => {
  const given = person({ values: { first_name: 'Tove', town: 'Orrin' }, tags: ['club'] })
  expect(takePerson(db, given, 10)).toBe('added')
  expect(takePerson(db, given, 11)).toBe('unchanged')
  expect(takePerson(db, person({ values: { town: null } }), 12)).toBe('changed')
  expect(takePerson(db, person({ tags: ['new'] }), 13)).toBe('changed')
  const { person: row, tags } = personDetails(db, 1)!
  expect(row).toMatchObject({ first_name: 'Tove', fields: '{}', joined_at: 10 })
  expect(tags).toEqual(['club', 'new'])
})

test('a subscription needs a list that is there, keeps what was agreed to, and revives nobody', () => {
  const joins = person({ lists: [{ list: 'wind-notes', agreed: 'Yes, the wind notes.' }] })
  expect(takePerson(db, joins, 10)).toBe('added')
  expect(personDetails(db, 1)!.evidence).toMatchObject([
    { way: 'API', state: 'subscribed', wording: 'Yes, the wind notes.' },
  ])
  changeSubscription(db, 1, list, 'unsubscribed', { act: 'person', way: 'link' }, 11)
  expect(takePerson(db, joins, 12)).toBe('unchanged')
  expect(personDetails(db, 1)!.subscriptions).toMatchObject([{ state: 'unsubscribed' }])
  expect(() => takePerson(db, person({ lists: [{ list: 'none', agreed: 'x' }] }), 13)).toThrow(
    'There is no list with the key “none”.',
  )
})

test('who is no address, and who was erased, is refused', () => {
  expect(() => takePerson(db, person({ address: 'tove at inkpost' }), 1)).toThrow(EntryFault)
  takePerson(db, person(), 2)
  erasePerson(db, 1, 3)
  expect(() => takePerson(db, person({ address: 'TOVE@inkpost.example' }), 4)).toThrow(/erased/)
})

test('an order is taken once by its number; its products are made as they come', () => {
  somebody(db, 'tove')
  expect(takeOrder(db, order(), 60)).toBe('added')
  expect(takeOrder(db, order({ items: [] }), 61)).toBe('unchanged')
  expect(takeOrder(db, order({ number: 'G-2', at: 70 }), 62)).toBe('added')
  expect(
    one(db, q.selectFrom('facts').select(['orders', 'spent', 'first_order_at', 'last_order_at'])),
  ).toEqual({ orders: 2, spent: 20_000, first_order_at: 50, last_order_at: 70 })
  expect(all(db, q.selectFrom('products').select(['key', 'price']).orderBy('id'))).toEqual([
    { key: 'delta-7', price: 4_700 },
    { key: 'spar', price: 600 },
  ])
})

test('events and orders are about people on file', () => {
  const event = { name: 'page view', at: 5, properties: { page: '/delta-7' } }
  expect(() => takeEvent(db, { address: 'nobody@inkpost.example', ...event })).toThrow(
    'Nobody with this address is on file.',
  )
  expect(() => takeOrder(db, order(), 1)).toThrow(EntryFault)
  somebody(db, 'tove')
  expect(takeEvent(db, { address: 'TOVE@inkpost.example', ...event })).toBe('added')
  expect(one(db, q.selectFrom('events').select(['person_id', 'name', 'at', 'props']))).toEqual({
    person_id: 1,
    name: 'page view',
    at: 5,
    props: '{"page":"/delta-7"}',
  })
})
