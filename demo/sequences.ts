import { firstLinkOf, linksOf, type Letter } from '../core/letters'
import {
  advance,
  emptyMap,
  enter,
  isHeldOut,
  insertStep,
  lotOf,
  mailingsOfMap,
  never,
  stepsInOrder,
  type Happening,
  type Place,
  type SequenceMap,
  type Starting,
} from '../core/sequences'
import { hourOf } from '../core/results'
import { DAY, HOUR, MINUTE } from '../core/time'
import { all, prepared, q, run, type Database } from '../database'
import {
  createMailing,
  mailingById,
  moveMailing,
  resetTotals,
  saveLinks,
} from '../database/mailings'
import { recipientAdder } from '../database/sending'
import { letterOf, pickerFor } from '../database/letters'
import {
  addSequence,
  beginJudging,
  beginMarks,
  carryOut,
  comingBy,
  passingBy,
  placeRow,
  HELD_OUT,
  type Sequence,
} from '../database/sequences'
import type { Chance } from './chance'
import { historyStatements } from './history'
import { letterFrom } from './letters'
import { plansFor, type Named, type Plan } from './sequence-plans'
import type { DemoPerson } from './people'

/** Nothing in the demo’s maps goes by somebody’s own clock, fields or hours. */
const anywhere = { zone: 'UTC', fieldOf: () => null, bestHour: () => 0 }

/** Four sequences: two that run, one that rests, one that is being drawn; with everybody who came by. */
export function makeSequences(
  db: Database,
  chance: Chance,
  people: DemoPerson[],
  lists: Named,
  now: number,
) {
  const agent = run(db, q.insertInto('agents').values({ text: 'SailMail/4.2 (tablet)' })).id
  for (const plan of plansFor(lists, now)) {
    const id = addSequence(db, plan.name, plan.list, plan.since - 3 * DAY)
    const map = draw(db, id, plan)
    const json = JSON.stringify(map)
    run(db, q.updateTable('sequences').set({ map: json }).where('id', '=', id))
    if (plan.state === 'draft') continue
    run(
      db,
      q.insertInto('sequence_versions').values({
        ...{ sequence_id: id, version: 1, map: json, at: plan.since },
      }),
    )
    const set = { state: plan.state, version: 1, started_at: plan.since }
    run(db, q.updateTable('sequences').set(set).where('id', '=', id))
    beginMarks(db, id, plan.by, now)
    beginJudging(db, id, map, null, plan.since)
    const walk = walker(db, chance, agent, {
      ...{ id, map, name: plan.name },
      buys: plan.buys ?? 0,
      anyway: plan.buysAnyway ?? 0,
    })
    for (const comer of comersOf(db, people, plan, now)) walk(comer, plan.list, now)
    answerHandOvers(db)
    for (const mailing of mailingsOfMap(map)) {
      keepHours(db, mailing)
      const { document } = letterOf(db, mailingById(db, mailing)!.letter_id)
      const picked = pickerFor(db, document, '', now)?.links ?? []
      saveLinks(db, mailing, [
        ...linksOf(document).map((link, n) => ({ ...link, no: firstLinkOf(0) + n })),
        ...picked.map((link) => ({ ...link, blockId: 'basket' })),
      ])
      moveMailing(db, mailing, ['draft'], plan.state === 'running' ? 'sending' : 'held', {
        started_at: plan.since,
        held_by: plan.state === 'running' ? null : 'hand',
      })
      resetTotals(db, mailing)
    }
  }
}

/** The desk has taken whoever was handed over before now, under numbers of its own. */
function answerHandOvers(db: Database) {
  const rows = all(
    db,
    q.selectFrom('hand_overs').select('id').where('due', 'is not', null).orderBy('at'),
  )
  for (const [n, { id }] of rows.entries())
    run(
      db,
      q
        .updateTable('hand_overs')
        .set((eb) => ({
          ...{ due: null, tries: 1, tried_at: eb.ref('at'), taken: 1, said: 'answered 200' },
          answer: JSON.stringify({ result: 'added', number: `K-${101 + n}` }),
        }))
        .where('id', '=', id),
    )
}

/** How many opened and clicked in each hour since they got a mail. */
function keepHours(db: Database, mailing: number) {
  const hours = new Map<number, { opens: number; clicks: number }>()
  const times = q
    .selectFrom('recipients')
    .select(['accepted_at', 'opened_at', 'clicked_at'])
    .where('mailing_id', '=', mailing)
    .where('accepted_at', 'is not', null)
  const add = (at: number | null, ownBegan: number, what: 'opens' | 'clicks') => {
    if (at === null) return
    const n = hourOf(at, { began: ownBegan, ownBegan })
    const hour = hours.get(n) ?? { opens: 0, clicks: 0 }
    hour[what]++
    hours.set(n, hour)
  }
  for (const { accepted_at, opened_at, clicked_at } of all(db, times)) {
    add(opened_at, accepted_at!, 'opens')
    add(clicked_at, accepted_at!, 'clicks')
  }
  for (const [hour, counts] of hours)
    run(db, q.insertInto('mailing_hours').values({ mailing_id: mailing, hour, ...counts }))
}

/** The map of a plan, each letter in a mailing of its own. */
function draw(db: Database, id: number, plan: Plan): SequenceMap {
  const { by, again = never, heldOut } = plan
  const held = heldOut ? { heldOut } : {}
  const start: SequenceMap = { ...emptyMap, start: { by, again, rule: null, ...held } }
  const line = plan.steps.reduce<SequenceMap>((map, step, n) => {
    const after = stepsInOrder(map).at(-1)?.id ?? null
    if (typeof step === 'number')
      return insertStep(map, after, `wait-${n}`, { kind: 'wait', ms: step })
    const mailing = mailFor(db, id, plan, letterFrom(step))
    return insertStep(map, after, `mail-${n}`, { kind: 'mail', mailingId: mailing })
  }, start)
  return plan.shape?.(line, (words) => mailFor(db, id, plan, letterFrom(words))) ?? line
}

function mailFor(db: Database, sequence: number, plan: Plan, letter: Letter): number {
  const id = createMailing(
    db,
    { name: letter.subject, listId: plan.list, letter },
    plan.since - 2 * DAY,
  )
  run(
    db,
    q.updateTable('mailings').set({ sequence_id: sequence, past_cap: 1 }).where('id', '=', id),
  )
  return id
}

/** Somebody who came in at a time, for which round of theirs, and by which event. */
interface Comer {
  person: DemoPerson
  at: number
  round: number
  by: number | null
}

/** Who came in, and when: by joining the list, or by an event that no order followed. */
function comersOf(db: Database, people: DemoPerson[], plan: Plan, now: number): Comer[] {
  const until = plan.state === 'paused' ? now - 20 * DAY : now
  const within = (at: number) => at > plan.since && at < until
  const [start] = plan.by
  if (start?.is !== 'left behind')
    return people.flatMap((person) => {
      const on = person.lists.get(plan.list)
      return on && within(on.since)
        ? [{ person, at: Math.floor(on.since), round: 0, by: null }]
        : []
    })
  const byId = new Map(people.map((person) => [person.id, person]))
  const sequence = { list_id: plan.list, started_at: plan.since } as Sequence
  const rounds = new Map<number, number>()
  const events = q.selectFrom('events').select(['id', 'at']).where('name', '=', start.name)
  const doneAt = new Map(all(db, events).map(({ id, at }) => [id, at]))
  // Past events do not stand in the order of their times: read as if the time of all were over.
  return everyComer(db, sequence, start, now + start.within).flatMap(
    ({ person: person_id, by: id }) => {
      const at = doneAt.get(id!)! + start.within
      const person = byId.get(person_id)
      const on = person?.lists.get(plan.list)
      if (
        !person ||
        !on ||
        on.since > at ||
        at >= on.until ||
        person.setAsideAt <= at ||
        !within(at)
      )
        return []
      const round = rounds.get(person_id) ?? 0
      rounds.set(person_id, round + 1)
      return [{ person, at, round, by: id }]
    },
  )
}

/** Everybody who came by a start since its record begins. */
function everyComer(db: Database, sequence: Sequence, start: Starting, now: number) {
  const found = []
  let upto = 0
  for (let more = true; more;) {
    const part = comingBy(db, sequence, start, { upto, now, zone: 'UTC' })
    found.push(...part.comers)
    ;({ upto, more } = part)
  }
  return found
}

/** Leads people through a map as they would have been led, up to now, and writes what came of it. */
function walker(
  db: Database,
  chance: Chance,
  agent: number,
  of: { id: number; name: string; map: SequenceMap; buys: number; anyway: number },
) {
  const { id: sequence, name, map, buys, anyway } = of
  const write = historyStatements(db)
  const ordered = prepared<{ person: number; from: number; to: number }, { n: number }>(
    db,
    (value) =>
      q
        .selectFrom('orders')
        .select((eb) => eb.fn.countAll<number>().as('n'))
        .where('person_id', '=', value('person'))
        .where('at', '>=', value('from'))
        .where('at', '<=', value('to')),
  )
  return ({ person, at: entered, round, by }: Comer, list: number, now: number) => {
    const on = person.lists.get(list)!
    let place: Place | null = enter(map, entered, anywhere)
    let last = place!
    let clicked: number | null = null
    const trail: { step: string; way: number; visit: number; at: number }[] = []
    let ending: { state: 'finished' | 'left'; why: string | null; at: number } | null = null
    if (isHeldOut(sequence, map.start.heldOut ?? 0, person.id)) {
      ending = { state: 'left', why: HELD_OUT, at: entered }
      place = null
      if (by !== null && chance.is(anyway))
        buy(person, by, entered + chance.between(1, 90) * HOUR, now)
    }
    while (place && place.due <= now) {
      const at: number = place.due
      const facts = {
        subscribed: at < on.until,
        suppressed: at >= person.setAsideAt,
        pausedUntil: null,
        holds(what: Happening, within = Infinity) {
          const to = Math.min(at, entered + within - 1)
          return what.is === 'clicked'
            ? clicked !== null && clicked <= to
            : what.is === 'ordered' && ordered.one({ person: person.id, from: entered, to })!.n > 0
        },
        lot: (step: string) => lotOf(sequence, step, person.id, round),
        sharesOf: () => null,
        ...anywhere,
      }
      const { effects, next, ended, passed } = advance(map, place, facts, at)
      if (passed) trail.push({ ...passed, visit: place.visit, at })
      for (const [act, effect] of effects.entries())
        if (effect.is === 'mail') {
          const then = read(person, { mailing: effect.mailingId, round }, at, now)
          if (then !== null && by !== null && chance.is(buys)) buy(person, by, then, now)
          clicked = then ?? clicked
        } else {
          const { step, visit } = place
          const of = { sequenceId: sequence, person: person.id, round, step, visit, act }
          const mails = recipientAdder(db, at)
          carryOut(db, effect, of, { list, sequence: name, mails }, at)
        }
      last = ended?.why === 'goal' ? { ...place, step: passed!.step } : place
      place = next
      if (ended) ending = { ...ended, at }
    }
    run(
      db,
      q.insertInto('enrolments').values({
        sequence_id: sequence,
        person_id: person.id,
        ...{ round, version: 1, start: 0, started_by: by },
        ...placeRow(map, place ?? last),
        state: ending?.state ?? 'inside',
        why: ending?.why ?? null,
        entered_at: entered,
        ended_at: ending?.at ?? null,
      }),
    )
    const of = { sequence_id: sequence, person_id: person.id, round, version: 1 }
    const passing = passingBy(db)
    for (const { visit, at, ...passed } of trail) passing.pass(of, passed, visit, at)
    passing.count()
  }

  /** What was in the basket is bought after all. */
  function buy(person: DemoPerson, basket: number, clicked: number, now: number) {
    const at = clicked + chance.between(4, 50) * MINUTE
    if (at > now) return
    const event = all(db, q.selectFrom('events').select('props').where('id', '=', basket))[0]!
    const { product: key } = JSON.parse(event.props) as { product: string }
    const product = q.selectFrom('products').select(['id', 'price']).where('key', '=', key)
    const { id, price } = all(db, product)[0]!
    const number = `B-${basket}`
    const order = run(
      db,
      q
        .insertInto('orders')
        .values({ number, person_id: person.id, at, money: price })
        .onConflict((c) => c.doNothing()),
    )
    if (order.changes === 0) return
    const item = { order_id: order.id, position: 0, product_id: id, quantity: 1, money: price }
    run(db, q.insertInto('order_items').values(item))
  }

  /** Somebody who has just joined reads more gladly than others; when they clicked, if they did. */
  function read(
    person: DemoPerson,
    of: { mailing: number; round: number },
    at: number,
    now: number,
  ): number | null {
    const accepted = at + chance.between(500, 40_000)
    // Some of it bounces, and is complained about, as any mail.
    if (chance.is(0.006)) {
      write.recipient.run({
        ...{ ...of, person: person.id, state: 'failed', at: accepted, accepted: null },
        ...{ opened: null, clicked: null, left: null, machine: null, scanner: null, agent: null },
        ...{ answer: 'The mailbox is full.', variant: null, part: null, truth: null },
      })
      return null
    }
    const soon = Math.floor(accepted + MINUTE - Math.log(1 - chance.next()) * 5 * HOUR)
    const opened = chance.is(0.3 + 0.6 * person.keen) && soon < now ? soon : null
    const clicked =
      opened !== null && chance.is(0.1 + 0.3 * person.keen)
        ? Math.min(now, opened + chance.between(8_000, 90_000))
        : null
    write.recipient.run({
      ...{ ...of, person: person.id, state: 'accepted', at: accepted, accepted, opened, clicked },
      ...{ left: null, machine: null, scanner: null, answer: null },
      ...{ agent: opened === null ? null : agent, variant: null, part: null, truth: null },
    })
    const act = { ...of, person: person.id, agent, method: 'GET', verdict: 'human' }
    if (opened !== null) write.act.run({ ...act, kind: 'open', link: null, at: opened })
    if (clicked !== null)
      write.act.run({ ...act, kind: 'click', link: firstLinkOf(0), at: clicked })
    return clicked
  }
}
