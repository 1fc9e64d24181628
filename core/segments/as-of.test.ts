import { expect, test } from 'vitest'
import { engagement, withAct } from '../standing'
import { DAY } from '../time'
import { factsAsOf } from './as-of'
import { causeAsker } from './cause'
import { madeUpFacts } from './made-up'
import type { MailFact, PersonFacts } from './person-facts'
import type { Catalog } from './ready'
import type { Rule } from './rule'

const now = Date.UTC(2026, 10, 23, 9)
const letter = (over: Partial<MailFact>): MailFact => ({
  mailingId: 1,
  sequenceId: null,
  state: 'accepted',
  at: now - 10 * DAY,
  acceptedAt: now - 10 * DAY,
  openedAt: null,
  openedOn: null,
  clickedAt: null,
  leftAt: null,
  repliedAt: null,
  ...over,
})
const person = (over: Partial<PersonFacts> = {}) =>
  madeUpFacts(now - 100 * DAY, { values: { town: 'Orrin' }, ...over })

test('before somebody came on file nothing was known of them', () => {
  expect(factsAsOf(person(), now - 101 * DAY)).toBeNull()
  expect(factsAsOf(person(), now - 100 * DAY)).not.toBeNull()
})

test('at present all is as it is, and engagement is what its acts come to', () => {
  const mail = [letter({ openedAt: now - 9 * DAY, clickedAt: now - 9 * DAY })]
  const orders = [{ at: now - DAY, money: 100, items: [] }]
  let keenness = withAct(null, 'open', now - 9 * DAY)
  keenness = withAct(keenness, 'click', now - 9 * DAY)
  keenness = withAct(keenness, 'order', now - DAY)
  const facts = person({ mail, orders, keenness })
  const then = factsAsOf(facts, now)!
  expect({ ...then, keenness: 0 }).toEqual({ ...facts, keenness: 0 })
  expect(engagement(then.keenness, now)).toBeCloseTo(engagement(keenness, now), 9)
})

test('who left a list was on it until then', () => {
  const joined = { state: 'subscribed' as const, since: now - 50 * DAY, way: 'form' }
  const left = {
    state: 'unsubscribed' as const,
    since: now - 5 * DAY,
    way: 'link',
    earlier: [joined],
  }
  const facts = person({ subscriptions: new Map([[1, left]]) })
  const stateAt = (at: number) => factsAsOf(facts, at)!.subscriptions.get(1)?.state
  expect(stateAt(now)).toBe('unsubscribed')
  expect(stateAt(now - 5 * DAY)).toBe('unsubscribed')
  expect(stateAt(now - 5 * DAY - 1)).toBe('subscribed')
  expect(stateAt(now - 50 * DAY - 1)).toBeUndefined()
})

test('what happened later had not happened', () => {
  const facts = person({
    mail: [
      letter({ openedAt: now - 2 * DAY, clickedAt: now - DAY }),
      letter({ mailingId: 2, at: now - 5 * DAY, acceptedAt: now - 5 * DAY }),
      letter({ mailingId: 3, state: 'bounced', at: now - DAY, acceptedAt: now - 9 * DAY }),
    ],
    orders: [{ at: now - 3 * DAY, money: 1, items: [] }],
    events: [{ name: 'page view', at: now - 4 * DAY, props: {} }],
    clicks: [{ mailingId: 1, link: 0, at: now - DAY }],
    subscriptions: new Map([
      [1, { state: 'subscribed', since: now - 2 * DAY, way: 'form' }],
      [2, { state: 'subscribed', since: now - 50 * DAY, way: 'form' }],
    ]),
  })
  const then = factsAsOf(facts, now - 6 * DAY)!
  expect(then.mail).toEqual([
    letter({}),
    letter({ mailingId: 3, at: now - 9 * DAY, acceptedAt: now - 9 * DAY }),
  ])
  expect([then.orders, then.events, then.clicks]).toEqual([[], [], []])
  expect([...then.subscriptions.keys()]).toEqual([2])
  expect(then.keenness).toBeNull()
  expect(factsAsOf(facts, now - 2 * DAY)!.mail[0]).toMatchObject({
    openedAt: now - 2 * DAY,
    clickedAt: null,
  })
})

const catalog: Catalog = {
  fields: new Map([['town', { name: 'Town', kind: 'text' as const }]]),
  lists: new Map(),
  tags: new Map(),
  goneTags: new Map(),
  mailings: new Map(),
  segments: new Map(),
  sequences: new Map(),
  imports: new Map(),
  signUps: new Map(),
  moneyDigits: 2,
  cutOf: () => null,
}
const rule: Rule = {
  kind: 'all',
  of: [
    { kind: 'joined', when: { is: 'last-days', days: 30 } },
    {
      kind: 'mail',
      did: 'opened',
      of: { which: 'any' },
      times: { is: 'at-least', n: 1 },
      withinDays: 7,
    },
    { kind: 'field', key: 'town', test: { is: 'equal', text: 'Orrin' } },
  ],
}
const zone = 'UTC'
const cause = causeAsker(rule, catalog, { now, zone }, { now: now - DAY, zone })

test('somebody comes because of what they did, or goes because time went by', () => {
  const young = { joinedAt: now - 20 * DAY }
  expect(cause(person({ ...young, mail: [letter({ openedAt: now - 1000 })] }))).toBe(
    'opened any mailing in the last 7 days',
  )
  expect(cause(person({ ...young, mail: [letter({ openedAt: now - 7 * DAY - 1000 })] }))).toBe(
    'opened any mailing in the last 7 days',
  )
  expect(
    cause(person({ joinedAt: now - 30 * DAY - 1000, mail: [letter({ openedAt: now - 5 * DAY })] })),
  ).toBe('joined in the last 30 days')
  expect(cause(person({ joinedAt: now - 1000 }))).toBe('joined in the last 30 days')
})

test('where no line tells, a value was changed', () => {
  expect(
    cause(person({ joinedAt: now - 20 * DAY, mail: [letter({ openedAt: now - 5 * DAY })] })),
  ).toBeNull()
})
