import fc from 'fast-check'
import { expect, test } from 'vitest'
import { readyRule, ruleToPredicate, type Rule } from '../core/segments'
import { DAY } from '../core/time'
import { audiencePeople, audienceWaterfall, countGaps } from './audience'
import { addList } from './lists'
import { openMemory } from './connect'
import { factsOf } from './person-facts'
import { all, q, run, type Database } from './query'
import { readCatalog } from './segments'
import { setAside } from './subscriptions'

const now = Date.UTC(2026, 10, 23)
const states = ['pending', 'subscribed', 'unsubscribed'] as const

interface Made {
  joinedDaysAgo: number
  state: (typeof states)[number] | null
  tags: number[]
  aside: boolean
  firstName: string | null
}

function peopleIn(db: Database, made: Made[]) {
  const list = addList(db, { name: 'Wind notes', description: '' }, 0)
  for (const name of ['owner', 'press']) run(db, q.insertInto('tags').values({ name }))
  made.forEach((person, i) => {
    const normal = `p${i}@inkpost.example`
    const joined_at = now - Math.round(person.joinedDaysAgo * DAY)
    const { id } = run(
      db,
      q.insertInto('people').values({
        address: normal,
        normal,
        domain: 'inkpost.example',
        first_name: person.firstName,
        last_name: null,
        joined_at,
        changed_at: now,
      }),
    )
    if (person.state)
      run(
        db,
        q
          .insertInto('subscriptions')
          .values({ person_id: id, list_id: list, state: person.state, since: now }),
      )
    for (const tag of new Set(person.tags))
      run(db, q.insertInto('person_tags').values({ person_id: id, tag_id: tag }))
    if (person.aside) setAside(db, id, 'by-hand', 'asked by telephone', now)
  })
  return list
}

const person: fc.Arbitrary<Made> = fc.record({
  joinedDaysAgo: fc.oneof(
    fc.integer({ min: -2, max: 40 }),
    fc.double({ min: 0, max: 40, noNaN: true }),
  ),
  state: fc.constantFrom(...states, null),
  tags: fc.array(fc.constantFrom(1, 2), { maxLength: 2 }),
  aside: fc.boolean(),
  firstName: fc.constantFrom(null, '', 'Tove'),
})
const { rule } = fc.letrec<{ rule: Rule }>((tie) => ({
  rule: fc.oneof(
    { depthSize: 'small' },
    fc.record({
      kind: fc.constant('joined' as const),
      when: fc.record({
        is: fc.constant('last-days' as const),
        days: fc.integer({ min: 1, max: 40 }),
      }),
    }),
    fc.record({
      kind: fc.constant('on-list' as const),
      listId: fc.constantFrom(1, 2),
      state: fc.constantFrom(...states),
      since: fc.constant(null),
      way: fc.constant(null),
    }),
    fc.record({ kind: fc.constant('tagged' as const), tagId: fc.constantFrom(1, 2, 3) }),
    fc.record({
      kind: fc.constantFrom('all' as const, 'any' as const, 'none' as const),
      of: fc.array(tie('rule'), { maxLength: 3 }),
    }),
  ),
}))

test('for every rule and person SQL, predicate and waterfall agree', () => {
  fc.assert(
    fc.property(fc.array(person, { maxLength: 12 }), rule, (made, someRule) => {
      const db = openMemory()
      const listId = peopleIn(db, made)
      const audience = { listId, rule: someRule }
      // List 2 and tag 3 are not there: a rule that asks for them matches nobody.
      const ready = readyRule(someRule, readCatalog(db)).rule
      const keeps = ruleToPredicate(ready, { now, zone: 'UTC' })
      const expected = made
        .map((one, i) => ({ ...one, id: i + 1 }))
        .filter((one) => one.state === 'subscribed' && !one.aside && keeps(factsOf(db, one.id)!))
      const found = all(db, audiencePeople(db, audience, now, 100, 0))
      expect(found.map(({ id }) => id)).toEqual(expected.map(({ id }) => id))
      const steps = audienceWaterfall(db, audience, now)
      expect(steps.at(-1)!.left).toBe(expected.length)
      expect(steps[0]!.left).toBe(made.filter((one) => one.state === 'subscribed').length)
      expect(steps.reduce((sum, step) => sum + step.out, steps.at(-1)!.left)).toBe(steps[0]!.left)
      expect(countGaps(db, audience, 'first_name', now)).toBe(
        expected.filter((one) => !one.firstName).length,
      )
      db.sqlite.close()
    }),
    { numRuns: 150 },
  )
})
