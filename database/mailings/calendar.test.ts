import { expect, test } from 'vitest'
import { DAY, HOUR } from '../../core/time'
import { startingLetter } from '../../core/letters'
import { loadByDay, mailingsBetween } from './calendar'
import { madeUpAccount, mailingOnItsWay, somebody } from '../made-up'
import { addList, changeSubscription } from '../people'
import { createMailing, moveMailing } from './mailings'
import type { Database } from '../query'

const now = Date.UTC(2026, 10, 23, 9)
function plan(db: Database, name: string, list: number, at: number) {
  const id = createMailing(db, { name, listId: list, letter: startingLetter() }, now)
  moveMailing(db, id, ['draft'], 'scheduled', { scheduled_at: at })
  return id
}

test('each day says how many get mail, and how many get several; days are those of the account', () => {
  const { db, list } = madeUpAccount({ zone: 'Pacific/Auckland' })
  const other = addList(db, { name: 'Offers', description: '' }, 0)
  const people = ['a', 'b', 'c', 'd'].map((name) => somebody(db, name, { list }))
  for (const person of people.slice(0, 2))
    changeSubscription(
      db,
      person,
      other,
      'subscribed',
      { act: 'person', way: 'form', wording: 'I want it.' },
      0,
    )
  somebody(db, 'e', { list: other })
  // 23 November 09:00 UTC is 22:00 in Auckland.
  plan(db, 'Late', list, now + HOUR)
  plan(db, 'Past midnight', other, now + 3 * HOUR)
  plan(db, 'Besides', other, now + 1.5 * HOUR)
  createMailing(db, { name: 'Draft', listId: list, letter: startingLetter() }, now)
  expect(loadByDay(db, '2026-11-23', '2026-11-24', now)).toEqual([
    { day: '2026-11-23', people: 5, several: 2 },
    { day: '2026-11-24', people: 3, several: 0 },
  ])
  expect(mailingsBetween(db, '2026-11-23', '2026-11-23').map(({ name }) => name)).toEqual([
    'Late',
    'Besides',
  ])
})

test('what has begun counts its recipients, not who would be one now', () => {
  const { db, list } = madeUpAccount({ zone: 'UTC' })
  somebody(db, 'a', { list })
  mailingOnItsWay(db, list, { now })
  somebody(db, 'late', { list })
  expect(loadByDay(db, '2026-11-20', '2026-11-30', now + DAY)).toEqual([
    { day: '2026-11-23', people: 1, several: 0 },
  ])
})
