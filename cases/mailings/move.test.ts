import { expect, test } from 'vitest'
import { plainPlan } from '../../core/dispatch'
import { startingLetter } from '../../core/letters'
import { addField } from '../../database/people'
import { madeUpAccount, somebody } from '../../database/made-up'
import {
  createMailing,
  mailingById,
  moveMailing,
  updateMailing,
  planOf,
} from '../../database/mailings'
import { moveWish } from './move'

const zone = 'Europe/London'
const utc = (text: string) => Date.parse(`${text}Z`)
const now = utc('2026-03-20T12:00')

function scheduled(wish: string, at: string, plan = plainPlan) {
  const { db, list } = madeUpAccount({ zone })
  addField(db, { key: 'time_zone', name: 'Time zone', kind: 'text' })
  somebody(db, 'ann', { list, values: { time_zone: 'America/New_York' } })
  const id = createMailing(db, { name: 'Gale', listId: list, letter: startingLetter() }, now)
  updateMailing(db, id, { plan: JSON.stringify(plan) })
  moveMailing(db, id, ['draft'], 'scheduled', { scheduled_at: utc(at), wish })
  return { id, db, move: (to: string) => moveWish(db, id, to, zone, now) }
}

test('over the day on which the clocks change the time on the wall stays, and going back gives exactly what was', () => {
  const { id, db, move } = scheduled('2026-03-27T09:00', '2026-03-27T09:00')
  expect(move('2026-03-30T09:00')).toEqual({
    wish: '2026-03-30T09:00',
    at: utc('2026-03-30T08:00'),
    was: '2026-03-27T09:00',
  })
  expect(move('2026-03-27T09:00')).toMatchObject({ at: utc('2026-03-27T09:00') })
  expect(mailingById(db, id)).toMatchObject({
    scheduled_at: utc('2026-03-27T09:00'),
    wish: '2026-03-27T09:00',
  })
})

test('a time that the wall does not have on that day is kept as the wish, and back from there no hour is lost', () => {
  const { move } = scheduled('2026-03-28T01:30', '2026-03-28T01:30')
  // From 01:00 the clocks of London go to 02:00 on the 29th.
  expect(move('2026-03-29T01:30')).toMatchObject({ wish: '2026-03-29T01:30' })
  expect(move('2026-03-28T01:30')).toEqual({
    wish: '2026-03-28T01:30',
    at: utc('2026-03-28T01:30'),
    was: '2026-03-29T01:30',
  })
})

test('at each reader’s local time the time on their clocks is what moves', () => {
  const plan = {
    ...plainPlan,
    pace: 'local-time' as const,
    localAt: '2026-03-27T09:00',
    zoneField: 'time_zone',
  }
  const { id, db, move } = scheduled('2026-03-27T09:00', '2026-03-27T09:00', plan)
  const before = mailingById(db, id)
  expect(move('2026-03-31T09:00')).toEqual({
    wish: '2026-03-31T09:00',
    // London’s 09:00 comes first; it is summer time there by then.
    at: utc('2026-03-31T08:00'),
    was: '2026-03-27T09:00',
  })
  expect(planOf(mailingById(db, id)!).localAt).toBe('2026-03-31T09:00')
  expect(move('2026-03-27T09:00')).toMatchObject({ was: '2026-03-31T09:00' })
  expect(mailingById(db, id)).toEqual(before)
  expect(planOf(mailingById(db, id)!).localAt).toBe('2026-03-27T09:00')
})

test('what is past, nonsense or not scheduled is refused, and nothing changes', () => {
  const { id, db, move } = scheduled('2026-03-27T09:00', '2026-03-27T09:00')
  const before = mailingById(db, id)
  expect(move('2026-03-01T09:00')).toEqual({ refused: expect.stringContaining('still to come') })
  expect(move('2026-13-45T09:00')).toEqual({ refused: 'This is no day and time.' })
  expect(mailingById(db, id)).toEqual(before)
  moveMailing(db, id, ['scheduled'], 'draft')
  expect(move('2026-03-30T09:00')).toEqual({ refused: 'Only what is scheduled can be moved.' })
})
