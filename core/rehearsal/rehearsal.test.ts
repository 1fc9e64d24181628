import { expect, test } from 'vitest'
import { emptyMap, insertStep, type NewStep, type SequenceMap } from '../sequences'
import { tiers } from '../standing'
import { DAY, HOUR } from '../time'
import { habitsOf, linkIn, rehearse, together, walkOne, type Audience, type Drawn } from '.'

const from = Date.UTC(2026, 2, 2, 9)
const rehearsing = { seed: 7, from, days: 60 }
const people: Drawn[] = Array.from({ length: 400 }, (_, n) => ({
  ...{ id: n + 1, tier: tiers[n % 4]!, sent: 20, opened: (n % 4) * 5, clicked: n % 4 },
  ...{ orders: n % 5 === 0 ? 2 : 0, days: 200, fields: {}, opens: [] },
}))
const audience: Audience = {
  ...{ people, isAll: true, fits: {} },
  customs: {
    ...{ zone: 'Europe/London', hours: new Array<number>(24).fill(1), hoursAhead: 0 },
    ...{
      openDelay: 4 * HOUR,
      leaveOfOpen: 0.02,
      events: { booked: { perDay: 0.05 } },
      links: {},
      quiet: null,
      cap: null,
      inside: null,
      opens: [],
    },
  },
}
/** Steps one behind the other; a fork’s side way leads on where the main one does. */
function line(...steps: NewStep[]): SequenceMap {
  return steps.reduce(
    (map, step, n) => insertStep(map, n === 0 ? null : `s${n - 1}`, `s${n}`, step),
    emptyMap,
  )
}
const mail = (mailingId: number): NewStep => ({ kind: 'mail', mailingId })
const wait = (ms: number): NewStep => ({ kind: 'wait', ms })
const goal: NewStep = { kind: 'goal', name: '', when: { is: 'ordered' }, out: true }
const split = (share: number): NewStep => ({ kind: 'split', ways: [{ share, next: null }] })
const course = line(mail(1), wait(2 * DAY), split(300), mail(2), wait(5 * DAY), mail(3), goal)

test('the same seed gives the same rehearsal, and another another', () => {
  expect(rehearse(course, audience, rehearsing, 0)).toEqual(
    rehearse(course, audience, rehearsing, 0),
  )
  expect(rehearse(course, audience, rehearsing, 1)).not.toEqual(
    rehearse(course, audience, rehearsing, 0),
  )
})

test('everybody who comes in is somewhere, and nobody comes out of a step who did not come to it', () => {
  const draw = rehearse(course, audience, rehearsing, 0)
  expect(draw.inside + draw.finished + draw.left).toBe(draw.cameIn)
  expect(draw.left).toBeGreaterThan(0)
  expect(draw.traffic.s0).toEqual([people.length])
  const [rest, side] = draw.traffic.s2!
  expect(side! / (rest! + side!)).toBeCloseTo(0.3, 1)
  expect(draw.mails).toBe(['s0', 's3', 's5'].reduce((sum, id) => sum + draw.traffic[id]![0]!, 0))
  expect(draw.weeks.reduce((sum, n) => sum + n, 0)).toBe(draw.mails)
  expect(draw.traffic.s6![1]).toBe(draw.goal)
  expect(draw.goalDays).toBeGreaterThan(0)
})

test('who opens more opens more in the rehearsal, and nobody’s habit is taken from few mails alone', () => {
  const habits = habitsOf(audience)
  const of = (tier: number) => habits[tier]!.open
  expect(of(3)).toBeGreaterThan(of(2))
  expect(of(2)).toBeGreaterThan(of(0))
  const [new1, new2] = habitsOf({
    people: [
      { ...people[3]!, sent: 1, opened: 0 },
      { ...people[3]!, sent: 1, opened: 1 },
      ...people,
    ],
    customs: audience.customs,
  })
  // One mail says little of somebody keen, whose tier opens three of four.
  expect(new1!.open).toBeGreaterThan(0.55)
  expect(new2!.open - new1!.open).toBeLessThan(0.1)
})

test('those who were inside before say how people who come in behave; who does more still does more', () => {
  const inside = { orders: { share: 0.3, mean: 2 * DAY }, open: 0.6, clickOfOpen: 0.2 }
  const customs = { ...audience.customs, inside }
  const habits = habitsOf({ people, customs })
  const mean = habits.reduce((sum, one) => sum + one.open, 0) / habits.length
  expect(mean).toBeGreaterThan(0.5)
  expect(habits[3]!.open).toBeGreaterThan(habits[0]!.open)
  const draw = rehearse(course, { ...audience, customs }, rehearsing, 0)
  expect(draw.goal / draw.cameIn).toBeGreaterThan(0.2)
  expect(draw.goalDays).toBeLessThanOrEqual(7)
})

test('what is changed further on changes nothing before it: luck stays with the steps', () => {
  const longer = insertStep(course, 's5', 'more', mail(4))
  const [before, after] = [course, longer].map((map) => rehearse(map, audience, rehearsing, 0))
  expect(after!.traffic.s2).toEqual(before!.traffic.s2)
  expect(after!.opened.s0).toBe(before!.opened.s0)
  expect(after!.mails).toBeGreaterThan(before!.mails)
})

test('who waits for a click goes on when they click, and others when the time is over', () => {
  const asks = line(mail(1), {
    ...{ kind: 'wait', ms: 3 * DAY, ways: [{ next: null }] },
    until: { is: 'happens', what: { is: 'clicked', mail: null } },
  })
  const draw = rehearse(asks, audience, rehearsing, 0)
  const [clicked, late] = draw.traffic.s1!
  expect(clicked).toBeGreaterThan(0)
  expect(clicked! + late! + draw.left).toBe(people.length)
  // A click after the time is over is too late.
  expect(clicked).toBeLessThanOrEqual(draw.clicked.s0!)
  expect(draw.clicked.s0!).toBeLessThan(draw.opened.s0!)
})

test('a click on one link is a click of as many as click on it, and not of all who click', () => {
  const url = 'https://galewright.example/delta'
  const asking = (link?: string, of: string | null = 's0') =>
    line(mail(1), wait(5 * DAY), {
      kind: 'fork',
      ways: [{ when: { is: 'clicked', mail: of, ...(link && { link }) }, next: null }],
    })
  const customs = { ...audience.customs, links: { [linkIn('s0', url)]: 0.25 } }
  const known = { ...audience, customs }
  const all = Array.from({ length: 20 }, (_, no) => no)
  const taken = (map: SequenceMap) =>
    all.reduce((sum, no) => sum + (rehearse(map, known, rehearsing, no).traffic.s2![1] ?? 0), 0)
  const clickers = taken(asking())
  expect(clickers).toBeGreaterThan(500)
  expect(taken(asking(url)) / clickers).toBeCloseTo(0.25, 1)
  expect(taken(asking(url, null))).toBe(taken(asking(url)))
  expect(taken(asking('https://galewright.example/other'))).toBe(0)

  // One person clicks on the link that is said; where none is, on the one that is asked for.
  const person = { zone: 'UTC', fields: {}, opens: [], everybody: [] }
  const said = { reactions: { s0: 'clicks' as const }, events: {}, ways: {}, fits: {} }
  const way = (links?: Record<string, string>) =>
    walkOne(asking(url), { ...said, ...(links && { links }) }, person, from).passed.at(-1)!.way
  expect([way(), way({ s0: url }), way({ s0: 'https://galewright.example/other' })]).toEqual([
    1, 1, 0,
  ])
})

test('two mails on one day are counted of whom they hit', () => {
  const both = rehearse(line(mail(1), wait(HOUR), mail(2)), audience, rehearsing, 0)
  expect(both.close).toBeGreaterThan(people.length * 0.9)
  expect(rehearse(course, audience, rehearsing, 0).close).toBe(0)
})

test('people read when people read', () => {
  const hours = new Array<number>(24).fill(0)
  hours[20] = 1
  const night = { ...audience, customs: { ...audience.customs, hours, openDelay: 24 * HOUR } }
  const asks = (wait: number) =>
    rehearse(
      line(
        mail(1),
        { kind: 'wait', ms: wait },
        {
          kind: 'fork',
          ways: [{ when: { is: 'opened', mail: null }, next: null }],
        },
      ),
      night,
      rehearsing,
      0,
    ).traffic.s2![1]!
  expect(asks(3 * DAY)).toBeGreaterThan(asks(3 * HOUR))
})

test('bands hold the draws: nine in ten lie within them', () => {
  const draws = Array.from({ length: 40 }, (_, no) => rehearse(course, audience, rehearsing, no))
  const { goal, traffic, draws: many } = together(draws)
  expect(many).toBe(40)
  const inside = draws.filter((draw) => draw.goal >= goal.low && draw.goal <= goal.high)
  expect(inside.length).toBeGreaterThanOrEqual(36)
  expect(goal.low).toBeLessThan(goal.high)
  for (const ways of Object.values(traffic))
    for (const { low, middle, high } of ways) expect(low <= middle && middle <= high).toBe(true)
})

test('one person walks as it is said: by what they do, where they fall, and whether they fit', () => {
  const rule = { kind: 'all' as const, of: [] }
  const asks = insertStep(course, 's6', 'fork', {
    kind: 'fork',
    ways: [{ when: { is: 'fits', rule }, next: null }],
  })
  const none = { reactions: {}, events: {}, ways: {}, fits: {} }
  const person = { zone: 'Europe/London', fields: {}, opens: [], everybody: [] }
  const idle = walkOne(asks, none, person, from)
  expect(idle.passed.map(({ step, way }) => [step, way])).toEqual([
    ...['s0', 's1', 's2', 's3', 's4', 's5', 's6', 'fork'].map((step) => [step, 0]),
  ])
  expect(idle.passed.at(-1)!.at).toBe(from + 7 * DAY)
  const fits = { [JSON.stringify(rule)]: true }
  const drawn = walkOne(asks, { ...none, ways: { s2: 1 } }, person, from)
  expect(drawn.passed.at(-1)).toMatchObject({ step: 's2', way: 1 })
  const other = walkOne(asks, { ...none, fits }, person, from)
  expect(other.passed.map(({ step, way }) => `${step} ${way}`)).toContain('fork 1')
  const buys = walkOne(asks, { ...none, reactions: { s0: 'orders' } }, person, from)
  expect(buys.walked.ended).toEqual({ state: 'finished', why: 'goal' })
  const goes = walkOne(asks, { ...none, reactions: { s0: 'unsubscribes' } }, person, from)
  expect(goes.walked.ended).toEqual({ state: 'left', why: 'unsubscribed' })
})

test('who waits for the hour they read most goes on in it, everybody else in everybody’s', () => {
  const map = line({ kind: 'wait', ms: HOUR, best: true }, mail(1))
  const at = (hour: number) => Date.UTC(2026, 1, 2, hour, 30)
  const everybody = [{ at: at(8), opens: 30 }]
  const hour = (opens: number[]) =>
    new Date(
      walkOne(
        map,
        { reactions: {}, events: {}, ways: {}, fits: {} },
        { zone: 'UTC', fields: {}, opens, everybody },
        from,
      ).passed[0]!.at,
    ).getUTCHours()
  expect([hour([]), hour([at(20)]), hour(Array<number>(8).fill(at(20)))]).toEqual([8, 8, 20])
  const customs = { ...audience.customs, zone: 'UTC', opens: everybody }
  const goes = (own: number[], until: number) => {
    const all = people.map((one) => ({ ...one, opens: own }))
    const draw = { ...rehearsing, from: from - (from % DAY), days: until / DAY }
    return rehearse(map, { ...audience, people: all, customs }, draw, 0).inside
  }
  // Within eight hours everybody’s hour comes for some, the evening for none of those who came in by day.
  expect(goes([], DAY)).toBe(0)
  const readers = Array<number>(8).fill(at(20))
  expect(goes(readers, DAY)).toBe(0)
})
