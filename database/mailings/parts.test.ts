import { addressed } from '../../core/delivery'
import { expect, test } from 'vitest'
import { plainPlan } from '../../core/dispatch'
import { DAY } from '../../core/time'
import { startingLetter } from '../../core/letters'
import { addField } from '../people'
import { madeUpAccount, somebody } from '../made-up'
import { createMailing, mailingById, updateMailing } from './mailings'
import { addParts, beginPart, firstLocalTime, partsOfMailing, zoneFields } from './parts'
import { dueLater, moveRecipient, readRecipient } from '../sending'

const now = Date.UTC(2026, 10, 23, 9)

test('at the same time on each clock: each is due when it is that time where they are', () => {
  const { db, list } = madeUpAccount({ zone: 'Europe/London' })
  addField(db, { key: 'time_zone', name: 'Time zone', kind: 'text' })
  const there = (name: string, zone?: string) =>
    somebody(db, name, { list, values: zone ? { time_zone: zone } : {} })
  const [london, auckland, york, odd] = [
    there('london'),
    there('auckland', 'Pacific/Auckland'),
    there('york', 'America/New_York'),
    there('odd', 'Not/AZone'),
  ]
  expect(zoneFields(db)).toEqual([{ key: 'time_zone', name: 'Time zone', people: 2 }])
  const plan = {
    ...plainPlan,
    pace: 'local-time' as const,
    zoneField: 'time_zone',
    localAt: '2026-11-25T09:00',
  }
  const begins = firstLocalTime(db, plan, 'Europe/London')!
  expect(new Date(begins).toISOString()).toBe('2026-11-24T20:00:00.000Z')
  const id = createMailing(db, { name: 'Everywhere', listId: list, letter: startingLetter() }, now)
  updateMailing(db, id, { plan: JSON.stringify(plan) })
  addParts(db, id, ['everybody'])
  const [part] = partsOfMailing(db, id)
  beginPart(db, mailingById(db, id)!, part!, { listId: list, rule: null }, 'Europe/London', begins)
  const due = (person: number) =>
    new Date(readRecipient(db, addressed(id, person))!.due).toISOString()
  expect([london, auckland, york, odd].map(due)).toEqual([
    '2026-11-25T09:00:00.000Z',
    '2026-11-24T20:00:00.000Z',
    '2026-11-25T14:00:00.000Z',
    '2026-11-25T09:00:00.000Z',
  ])
  const waits = (at: number) => dueLater(db, id, at)
  expect(waits(begins)).toEqual({
    people: 3,
    first: Date.UTC(2026, 10, 25, 9),
    last: Date.UTC(2026, 10, 25, 14),
  })
  expect(waits(Date.UTC(2026, 10, 25, 9))!.people).toBe(1)
  moveRecipient(db, addressed(id, york), 'queued', 'dropped', begins)
  expect(waits(Date.UTC(2026, 10, 25, 9))).toBeNull()
})

test('begun late, whoever’s time has passed gets it at once', () => {
  const { db, list } = madeUpAccount({ zone: 'UTC' })
  addField(db, { key: 'time_zone', name: 'Time zone', kind: 'text' })
  const person = somebody(db, 'auckland', { list, values: { time_zone: 'Pacific/Auckland' } })
  const plan = {
    ...plainPlan,
    pace: 'local-time' as const,
    zoneField: 'time_zone',
    localAt: '2026-11-23T09:00',
  }
  const id = createMailing(db, { name: 'Late', listId: list, letter: startingLetter() }, now)
  updateMailing(db, id, { plan: JSON.stringify(plan) })
  addParts(db, id, ['everybody'])
  const [part] = partsOfMailing(db, id)
  beginPart(db, mailingById(db, id)!, part!, { listId: list, rule: null }, 'UTC', now + DAY)
  expect(readRecipient(db, addressed(id, person))!.due).toBe(now + DAY)
})
