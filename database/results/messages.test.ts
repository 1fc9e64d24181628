import { expect, test } from 'vitest'
import { MESSAGES_SHOWN, readMessagesAsked, type Message } from '../../core/results'
import { one, q, run } from '..'
import { madeUpAccount, mailingOnItsWay, somebody } from '../made-up'
import { messageCounts, messagesOf } from './messages'

const now = Date.UTC(2026, 10, 23, 9)

test('messages come one by one, the newest first, each once, with where they stand and what was done with them', () => {
  const { db, list } = madeUpAccount()
  const people = Array.from({ length: 120 }, (_, n) =>
    somebody(db, `m${n}`, { list, values: n === 7 ? { first_name: 'Ottilie' } : {} }),
  )
  const id = mailingOnItsWay(db, list, { now })
  const set = (person: number, over: object) =>
    run(
      db,
      q
        .updateTable('recipients')
        .set(over)
        .where('mailing_id', '=', id)
        .where('person_id', '=', person),
    )
  for (const [n, person] of people.entries())
    set(person, { state: n % 10 === 0 ? 'failed' : 'accepted', at: now + (n % 4) * 1_000 })
  set(people[7]!, { at: now + 9_000, opened_at: now + 8_000, answer: '250 fine' })
  const pages: Message[][] = []
  for (let offset = 0; ; offset += MESSAGES_SHOWN) {
    const { messages, more } = messagesOf(db, id, { state: null, to: null, offset })
    pages.push(messages)
    if (!more) break
  }
  expect(pages.map((page) => page.length)).toEqual([50, 50, 20])
  const told = pages.flat()
  expect(new Set(told.map(({ person_id }) => person_id)).size).toBe(120)
  expect(told.map(({ at }) => at)).toEqual(told.map(({ at }) => at).toSorted((a, b) => b - a))
  expect(told[0]).toMatchObject({
    ...{ person_id: people[7], name: 'Ottilie', state: 'accepted', answer: '250 fine' },
    ...{ opened_at: now + 8_000, clicked_at: null },
  })
  run(db, q.updateTable('mailing_totals').set({ queued: 0, accepted: 108, failed: 12 }))
  expect(messageCounts(db, id)).toEqual([
    { state: 'accepted', many: 108 },
    { state: 'failed', many: 12 },
  ])
  const failed = messagesOf(db, id, { state: 'failed', to: null, offset: 0 })
  expect(failed).toMatchObject({ more: false })
  expect(failed.messages).toHaveLength(12)
  expect(failed.messages.every(({ state }) => state === 'failed')).toBe(true)
  const { address } = one(
    db,
    q.selectFrom('people').select('address').where('id', '=', people[10]!),
  )!
  expect(failed.messages.some(({ name }) => name === address)).toBe(true)
  // To whom: by part of a name or address.
  const to = (to: string, state: string | null = null) =>
    messagesOf(db, id, { state, to, offset: 0 }).messages.map(({ person_id }) => person_id)
  expect(to('ottil')).toEqual([people[7]])
  expect(to(address)).toEqual([people[10]])
  expect(to('ottil', 'failed')).toEqual([])
  expect(to('nobody of that name')).toEqual([])
})

test('what is odd in an address is not asked for', () => {
  const all = { state: null, to: null, offset: 0 }
  for (const query of [
    {},
    { state: 'Gone!' },
    { offset: '-3' },
    { offset: '1e99' },
    { offset: [] },
    { to: ' ' },
    { to: ['a'] },
  ])
    expect(readMessagesAsked(query)).toEqual(all)
  expect(readMessagesAsked({ state: 'failed', to: ' wren ', offset: '50' })).toEqual({
    ...{ state: 'failed', to: 'wren', offset: 50 },
  })
})
