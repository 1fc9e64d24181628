import { beforeEach, expect, test } from 'vitest'
import type { Rule } from '../../core/segments'
import { DAY } from '../../core/time'
import { madeUpAccount, somebody } from '../made-up'
import type { Database } from '../query'
import { pastSizes } from './estimate'
import { countMembers } from './segments'
import { changeSubscription } from '../people'

const now = Date.UTC(2026, 10, 23, 12)
let db: Database
let list: number
beforeEach(() => void ({ db, list } = madeUpAccount()))
const onList = (): Rule => ({
  kind: 'all',
  of: [{ kind: 'on-list', listId: list, state: 'subscribed', since: null, way: null }],
})
const sizes = (rule: Rule) => pastSizes(db, rule, now).sizes.map(({ size }) => size)

test('in a small account everybody is looked at, and each size is what was the case', () => {
  for (const weeks of [20, 10, 5, 1])
    somebody(db, `w${weeks}`, { list, now: now - weeks * 7 * DAY })
  const leaver = somebody(db, 'leaver', { list, now: now - 11 * 7 * DAY })
  changeSubscription(
    db,
    leaver,
    list,
    'unsubscribed',
    { act: 'link', way: 'link' } as never,
    now - 17 * DAY,
  )
  const past = pastSizes(db, onList(), now)
  expect(past).toMatchObject({ drawn: 5, everyone: 5 })
  expect(past.sizes.map(({ size }) => size)).toEqual([1, 2, 3, 3, 3, 3, 3, 4, 4, 4, 3, 4, 4])
  for (const { size, low, high } of past.sizes) expect([low, high]).toEqual([size, size])
})

test('among many people the truth lies between the bounds, and the last size is the count', () => {
  for (let i = 0; i < 3_000; i++) somebody(db, `p${i}`, { now: now - ((i * 37) % 100) * DAY })
  const young: Rule = { kind: 'all', of: [{ kind: 'joined', when: { is: 'last-days', days: 20 } }] }
  const past = pastSizes(db, young, now)
  expect(past.drawn).toBeGreaterThan(400)
  expect(past.drawn).toBeLessThan(800)
  const outside = past.sizes.filter(
    ({ at, low, high }) => truly(at) < low || truly(at) > high,
  ).length
  expect(outside).toBeLessThanOrEqual(2)
  expect(past.sizes.at(-1)!.size).toBe(countMembers(db, young, now))
  /** Of the people made above, those who had joined by then, within twenty days. */
  function truly(at: number) {
    return Array.from({ length: 3_000 }, (_, i) => now - ((i * 37) % 100) * DAY).filter(
      (joined) => joined <= at && joined >= at - 20.5 * DAY,
    ).length
  }
})

test('a rule that refers to what is gone keeps nobody, and nobody on file is no fault', () => {
  expect(sizes({ kind: 'all', of: [{ kind: 'segment', segmentId: 99 }] })).toEqual(
    new Array(13).fill(0),
  )
})
