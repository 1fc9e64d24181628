import { beforeEach, expect, test } from 'vitest'
import type { Rule } from '../../core/segments'
import { DAY } from '../../core/time'
import { erasePerson, changePerson } from '../people'
import { madeUpAccount, somebody } from '../made-up'
import { all, q, type Database } from '../query'
import { followSegment, trendOf, unfollowedSegments } from './trend'
import {
  addSegment,
  changeSegment,
  countMembers,
  deleteSegment,
  freezeRule,
  segmentById,
} from './segments'

const start = Date.UTC(2026, 10, 1, 12)
const rule: Rule = {
  kind: 'any',
  of: [
    { kind: 'joined', when: { is: 'last-days', days: 2 } },
    { kind: 'field', key: 'first_name', test: { is: 'equal', text: 'Tove' } },
  ],
}
const young: Rule = { kind: 'all', of: [{ kind: 'joined', when: { is: 'last-days', days: 2 } }] }
let db: Database
let id: number
beforeEach(() => {
  ;({ db } = madeUpAccount())
  id = addSegment(db, 'New', young, start)
})
const follow = (at: number) => [...followSegment(db, segmentById(db, id)!, at)].length
const days = () => trendOf(db, id).days
const kept = () =>
  all(db, q.selectFrom('segment_people').select('person_id').where('segment_id', '=', id)).length

test('the first day only notes who is there', () => {
  somebody(db, 'a', { now: start - DAY })
  expect(unfollowedSegments(db, start)).toEqual([id])
  follow(start)
  expect(unfollowedSegments(db, start + 3_600_000)).toEqual([])
  expect(unfollowedSegments(db, start + DAY)).toEqual([id])
  expect(trendOf(db, id)).toEqual({
    days: [{ day: '2026-11-01', size: 1, came: 0, went: 0 }],
    reasons: [],
    people: [],
  })
})

test('who comes and goes is counted, named and explained; sizes follow from it', () => {
  const a = somebody(db, 'a', { now: start - DAY })
  follow(start)
  const b = somebody(db, 'b', { now: start + DAY })
  follow(start + DAY + 1)
  follow(start + 2 * DAY + 1)
  expect(days()).toEqual([
    { day: '2026-11-01', size: 1, came: 0, went: 0 },
    { day: '2026-11-02', size: 1, came: 1, went: 1 },
    { day: '2026-11-03', size: 1, came: 0, went: 0 },
  ])
  const { reasons, people } = trendOf(db, id)
  expect(reasons).toHaveLength(2)
  for (const reason of reasons)
    expect(reason).toMatchObject({ n: 1, why: 'joined in the last 2 days' })
  expect(people.map((one) => [one.id, one.came])).toEqual([
    [b, true],
    [a, false],
  ])
})

test('day by day the size is that of the rule, whatever happens', () => {
  changeSegment(db, id, { name: 'New', rule }, 1, start)
  const people: number[] = []
  for (let day = 0; day < 8; day++) {
    const now = start + day * DAY
    if (day % 2) people.push(somebody(db, `p${day}`, { now }))
    if (day === 4) changePerson(db, people[0]!, { values: { first_name: 'Tove' } }, now)
    if (day === 6) erasePerson(db, people[1]!, now)
    follow(now)
    expect(days().at(-1)!.size).toBe(countMembers(db, rule, now))
    expect(days().at(-1)!.size).toBe(kept())
  }
  expect(trendOf(db, id).reasons.some(({ came, why }) => came && why === null)).toBe(true)
})

test('on the day the rule is changed that is the reason', () => {
  somebody(db, 'a', { now: start - DAY })
  follow(start)
  changeSegment(db, id, { name: 'New', rule: { kind: 'tier', of: ['keen'] } }, 1, start)
  follow(start + DAY)
  expect(trendOf(db, id).reasons).toEqual([{ came: false, why: 'the rule was changed', n: 1 }])
})

test('cut off in the middle it is done again and counts once', () => {
  for (let i = 0; i < 5; i++) somebody(db, `a${i}`, { now: start })
  const cut = followSegment(db, segmentById(db, id)!, start)
  cut.next()
  expect(days()).toEqual([])
  follow(start)
  expect(days()).toMatchObject([{ size: 5, came: 0 }])
  somebody(db, 'b', { now: start + DAY / 2 })
  const again = followSegment(db, segmentById(db, id)!, start + DAY)
  again.next()
  follow(start + DAY)
  expect(days().at(-1)).toMatchObject({ size: 6, came: 1, went: 0 })
})

test('frozen and deleted segments are not followed', () => {
  freezeRule(db, 'Frozen', young, start)
  deleteSegment(db, id, start)
  expect(unfollowedSegments(db, start)).toEqual([])
})
