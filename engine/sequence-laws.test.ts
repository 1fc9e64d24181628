import fc from 'fast-check'
import { expect, test } from 'vitest'
import {
  emptyMap,
  insertStep,
  mailingsOfStep,
  removeStep,
  type NewStep,
  type SequenceMap,
} from '../core/sequences'
import { DAY, HOUR } from '../core/time'
import { q, run } from '../database'
import { madeUpAccount, somebody } from '../database/made-up'
import { changeSubscription, suppressPeople } from '../database/people'
import {
  addMailOf,
  addSequence,
  changeSequence,
  pauseSequence,
  sequenceById,
  startSequence,
} from '../database/sequences'
import { finishedLetter } from '../tests/subscribers'
import { runJobs } from './jobs'
import { madeUpEngine } from './made-up'
import { runSequences } from './run-sequences'

/**
 * Whatever people do, and whatever is done to a sequence while they are inside, and whenever an engine dies: what a step does
 * is done once for each who goes by it and for nobody else; nobody gets a mail twice in a round, nor two of its versions; who
 * left the list, is suppressed or has reached the goal gets nothing more; nothing moves while it is paused; each event lets
 * in once; the figures are those of the rows; and in the end everybody has come out.
 */
const PEOPLE = 6
const who = fc.integer({ min: 0, max: PEOPLE - 1 })
const someMap = fc.integer({ min: 0, max: 3 })
const sizes = { minLength: 10, maxLength: 40 }
type Command =
  | { do: 'run'; engines: number }
  /** The engine dies at the nth row that it writes for somebody inside. */
  | { do: 'die'; at: number }
  | { do: 'clock'; hours: number }
  | { do: 'pause' | 'go on' }
  | { do: 'publish'; map: number; moves: boolean }
  | { do: 'event' | 'order' | 'click' | 'unsubscribe' | 'subscribe' | 'suppress'; who: number }
const command: fc.Arbitrary<Command> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({
      do: fc.constant('run' as const),
      engines: fc.integer({ min: 1, max: 2 }),
    }),
  },
  {
    weight: 3,
    arbitrary: fc.record({ do: fc.constant('die' as const), at: fc.integer({ min: 1, max: 9 }) }),
  },
  {
    weight: 5,
    arbitrary: fc.record({
      do: fc.constant('clock' as const),
      hours: fc.constantFrom(1, 24, 25, 49, 24 * 40),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({ do: fc.constantFrom('pause' as const, 'go on' as const) }),
  },
  {
    weight: 4,
    arbitrary: fc.record({
      do: fc.constant('publish' as const),
      map: someMap,
      moves: fc.constantFrom(true, true, false),
    }),
  },
  {
    weight: 9,
    arbitrary: fc.record({
      do: fc.constantFrom(
        'event' as const,
        'event' as const,
        'event' as const,
        'order' as const,
        'click' as const,
        'unsubscribe' as const,
        'subscribe' as const,
        'suppress' as const,
      ),
      who,
    }),
  },
)

test('random acts, publishing, pauses, jumps of the clock and deaths: every step once, and the figures are those of the rows', async () => {
  await fc.assert(
    fc.asyncProperty(someMap, fc.array(command, sizes), async (map, commands) => {
      const world = begin(map)
      for (const one of commands) {
        await world.carryOut(one)
        world.holds()
      }
      await world.finish()
      world.holds()
      world.isOver()
    }),
    { numRuns: 60 },
  )
}, 300_000)

function begin(map: number) {
  const { db, list } = madeUpAccount()
  const engines = [madeUpEngine(db), { ...madeUpEngine(db), id: 'engine-2' }] as const
  const [{ time }] = engines
  const clock = () => time.now
  const both = engines.map((one) => ({ ...one, clock, hostClock: clock }))
  const people = Array.from({ length: PEOPLE }, (_, n) => somebody(db, `p${n}`, { list }))
  const id = addSequence(db, 'Breeze', list, 0)
  const sequence = () => sequenceById(db, id)!
  const mail = (name: string) => addMailOf(db, sequence(), name, 0, finishedLetter())
  const [hello, reminder, b, last] = ['Hello', 'Reminder', 'Reminder, version B', 'Last'].map(
    mail,
  ) as [number, number, number, number]
  const maps = mapsOf({ hello, reminder, b, last })
  const draw = (map: SequenceMap) =>
    changeSequence(db, sequence(), { name: 'Breeze', listId: list, map }, sequence().revision)
  draw(maps[map]!)
  expect(startSequence(db, sequence(), time.now)).toBe(true)
  // A death is the loss of all that was not committed: the nth row is refused, and its transaction rolled back.
  db.sqlite.exec(`create temp table fuse (n integer); insert into fuse values (-1);`)
  for (const [n, what] of [
    'insert on main.recipients',
    'insert on main.notes',
    'insert on main.sequence_trail',
    'insert on main.enrolments',
    'update on main.enrolments',
  ].entries())
    db.sqlite.exec(`create temp trigger fuse_${n} before ${what} begin
      update fuse set n = n - 1 where n > 0;
      select raise(abort, 'killed') where (select n from fuse) = 0; end`)
  const fuse = db.sqlite.prepare('update temp.fuse set n = ?')

  /** How many mails somebody had when they left, were suppressed, or (by round) ordered: they get no more. */
  const stopped = new Map<string, number>()
  let numbers = 0
  const rows = <T>(text: string, ...values: unknown[]) => db.sqlite.prepare(text).all(values) as T[]
  const mailsOf = (person: number, round?: number) =>
    rows(
      `select 1 from recipients where person_id = ? ${round === undefined ? '' : 'and round = ?'}`,
      ...[person, round].filter((one) => one !== undefined),
    ).length
  const at = () => time.now
  const by = { act: 'person' as const, way: 'form', wording: 'Write to me.' }
  const paused = () => sequence().state === 'paused'
  const state = () =>
    JSON.stringify([
      rows('select * from sequence_trail order by person_id, round, visit'),
      rows('select person_id, round, state, step from enrolments order by person_id, round'),
      rows('select mailing_id, person_id, round from recipients order by 1, 2, 3'),
    ])

  async function work(count: number) {
    const before = paused() ? state() : null
    await runJobs(both[0]!)
    for (let more = true, n = 0; more && n < 200; n++)
      more = (await Promise.all(both.slice(0, count).map((one) => runSequences(one)))).some(Boolean)
    if (before !== null) expect(state(), 'nothing moves while it is paused').toBe(before)
  }

  async function carryOut(command: Command) {
    switch (command.do) {
      case 'run':
        return work(command.engines)
      case 'die':
        fuse.run(command.at)
        await work(1).catch((error: Error) => expect(error.message).toContain('killed'))
        return void fuse.run(-1)
      case 'clock':
        return void (time.now += command.hours * HOUR)
      case 'pause':
        return void (sequence().state === 'running' && pauseSequence(db, id, at()))
      case 'go on':
        return void (paused() && startSequence(db, sequence(), at()))
      case 'publish': {
        draw(maps[command.map]!)
        if (!paused()) startSequence(db, sequence(), at(), { moves: command.moves })
        return
      }
      case 'event': {
        const person_id = people[command.who]!
        const event = { person_id, name: 'basket', at: at(), props: '{}' }
        return void run(db, q.insertInto('events').values(event))
      }
      case 'order': {
        const person_id = people[command.who]!
        const order = { person_id, number: `N${numbers++}`, at: at(), money: 4_000 }
        run(db, q.insertInto('orders').values(order))
        // Of the rounds they are in: it is a goal that lies ahead of whoever is inside.
        for (const { round } of rows<{ round: number }>(
          `select round from enrolments where person_id = ? and state = 'inside'`,
          person_id,
        ))
          stopped.set(`${person_id} ${round}`, mailsOf(person_id, round))
        return
      }
      case 'click':
        return void run(
          db,
          q
            .updateTable('recipients')
            .set({ opened_at: at(), clicked_at: at() })
            .where('person_id', '=', people[command.who]!)
            .where('clicked_at', 'is', null),
        )
      case 'unsubscribe':
      case 'subscribe': {
        const person = people[command.who]!
        const to = command.do === 'subscribe' ? 'subscribed' : 'unsubscribed'
        changeSubscription(db, person, list, to, by, at())
        if (to === 'unsubscribed') stopped.set(`${person}`, mailsOf(person))
        else stopped.delete(`${person}`)
        return
      }
      case 'suppress': {
        const person = people[command.who]!
        suppressPeople(db, [person], 'asked us to', at())
        return void stopped.set(`${person} for good`, mailsOf(person))
      }
    }
  }

  function holds() {
    const trail = rows<{ person_id: number; round: number; step: string; visit: number }>(
      'select person_id, round, step, visit from sequence_trail order by person_id, round, visit',
    )
    const went = (step: string) => trail.filter((one) => one.step === step)
    // What a step did, it did for each who went by it, once.
    const notes = rows<{ person_id: number }>('select person_id from notes order by person_id')
    expect(notes.map((one) => one.person_id)).toEqual(went('note').map((one) => one.person_id))
    const ofStep = new Map(
      maps.flatMap(({ steps }) =>
        Object.entries(steps).flatMap(([step, of]) =>
          mailingsOfStep(of).length ? [[step, mailingsOfStep(of)] as const] : [],
        ),
      ),
    )
    const got = rows<{ mailing_id: number; person_id: number; round: number }>(
      'select mailing_id, person_id, round from recipients',
    )
    for (const [step, mailings] of ofStep) {
      const mailed = got.filter((one) => mailings.includes(one.mailing_id)).map(roundOf)
      expect(new Set(mailed).size, `${step}: one version each`).toBe(mailed.length)
      const passed = new Set(went(step).map(roundOf))
      expect(new Set(mailed), step).toEqual(passed)
    }
    // Each event lets in once.
    const begun = rows<{ started_by: number }>('select started_by from enrolments')
    expect(new Set(begun.map((one) => one.started_by)).size).toBe(begun.length)
    // The figures are those of the rows.
    expect(
      rows(`select step, way, sum(people) as people from sequence_traffic
        group by 1, 2 having sum(people) > 0 order by 1, 2`),
    ).toEqual(
      rows('select step, way, count(*) as people from sequence_trail group by 1, 2 order by 1, 2'),
    )
    expect(
      rows(`select state, place, sum(people) as people from sequence_standing
        group by 1, 2 having sum(people) > 0 order by 1, 2`),
    ).toEqual(
      rows(`select state, case state when 'inside' then step else coalesce(why, '') end as place, count(*) as people
        from enrolments group by 1, 2 order by 1, 2`),
    )
    for (const [key, had] of stopped) {
      const [person, round] = key.split(' ')
      const now = mailsOf(Number(person), round && round !== 'for' ? Number(round) : undefined)
      expect(now, `mails of ${key}`).toBe(had)
    }
  }

  async function finish() {
    if (paused()) startSequence(db, sequence(), at())
    for (let n = 0; n < 12; n++) {
      await work(2)
      time.now += 10 * DAY
    }
  }
  function isOver() {
    expect(rows(`select * from enrolments where state = 'inside'`)).toEqual([])
  }
  return { carryOut, holds, finish, isOver }
}

const roundOf = ({ person_id, round }: { person_id: number; round: number }) =>
  `${person_id} ${round}`

/** Maps of the same steps: as it was begun, with mails in another order, without the wait, and with the version's shares changed. */
function mapsOf(mails: { hello: number; reminder: number; b: number; last: number }) {
  const { hello, reminder, b, last } = mails
  const start = {
    by: [{ is: 'event' as const, name: 'basket' }],
    again: { is: 'each' as const },
    rule: null,
  }
  const tried = { kind: 'mail' as const, mailingId: reminder }
  const clicked = { is: 'clicked' as const, mail: null }
  const kinds = {
    hello: { kind: 'mail', mailingId: hello },
    wait: { kind: 'wait', ms: DAY },
    fork: { kind: 'fork', ways: [{ when: clicked, next: null }] },
    note: { kind: 'do', acts: [{ is: 'note', text: 'went by' }] },
    reminder: tried,
    rest: { kind: 'wait', ms: DAY },
    last: { kind: 'mail', mailingId: last },
    goal: { kind: 'goal', name: '', when: { is: 'ordered' }, out: true },
  } satisfies Record<string, NewStep>
  const build = (share: number, order: readonly (keyof typeof kinds)[]) => {
    const steps = { ...kinds, reminder: { ...tried, versions: [{ mailingId: b, share }] } }
    return order.reduce<SequenceMap>(
      (map, step, n) => insertStep(map, order[n - 1] ?? null, step, steps[step]),
      { ...emptyMap, start },
    )
  }
  const whole = ['hello', 'wait', 'fork', 'note', 'reminder', 'rest', 'last', 'goal'] as const
  const first = build(500, whole)
  return [
    first,
    build(500, ['reminder', 'wait', 'hello', 'fork', 'note', 'rest', 'last', 'goal']),
    removeStep(first, 'wait'),
    build(100, whole),
  ]
}
