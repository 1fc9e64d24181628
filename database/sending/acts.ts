import type { Addressed } from '../../core/delivery'
import { FIRST_PRODUCT_LINK } from '../../core/letters'
import { sql, type SqlBool } from 'kysely'
import { hourOf, type Verdict } from '../../core/results'
import { shiftTotals } from './recipients'
import { all, one, q, raw, rowsInserter, run, transact, type Database } from '../query'

/** An open or a click as it came in over HTTP. */
export interface NewAct extends Addressed {
  kind: 'open' | 'click'
  link: number | null
  at: number
  agent: string
  method: string
}

/** Writes acts, all of them or none. Keeps each user agent's text once. */
export function actRecorder(db: Database): (acts: readonly NewAct[]) => void {
  const agents = new Map<string, number>()
  const insert = rowsInserter(db, 'acts', [
    'mailing_id',
    'person_id',
    'round',
    'kind',
    'link',
    'at',
    'agent_id',
    'method',
  ])
  const agentId = (text: string) => {
    let id = agents.get(text)
    if (id === undefined) {
      run(
        db,
        q
          .insertInto('agents')
          .values({ text })
          .onConflict((c) => c.doNothing()),
      )
      id = one(db, q.selectFrom('agents').select('id').where('text', '=', text))!.id
      if (agents.size > 10_000) agents.clear()
      agents.set(text, id)
    }
    return id
  }
  return (acts) =>
    insert(
      acts.map((act) => [
        act.mailingId,
        act.personId,
        act.round,
        act.kind,
        act.link,
        act.at,
        agentId(act.agent.slice(0, 300)),
        act.method,
      ]),
    )
}

/** Whose act it is: letters to somebody who was merged since name whom they were sent to. */
const whoseNow = sql<number>`coalesce(merged.kept_id, acts.person_id)`

/** Acts that are still to be judged and came before `before`, in the order they came. */
export function unjudgedActs(db: Database, before: number, limit: number) {
  return all(
    db,
    q
      .selectFrom('acts')
      .innerJoin('agents', 'agents.id', 'acts.agent_id')
      .leftJoin('merged_people as merged', 'merged.gone_id', 'acts.person_id')
      .leftJoin('recipients', (join) =>
        join
          .onRef('recipients.mailing_id', '=', 'acts.mailing_id')
          .onRef('recipients.round', '=', 'acts.round')
          .on((eb) => eb('recipients.person_id', '=', whoseNow)),
      )
      .innerJoin('mailings', 'mailings.id', 'acts.mailing_id')
      .select([
        'acts.id',
        'acts.mailing_id',
        whoseNow.as('person_id'),
        'acts.round',
        'merged.kept_id as became',
        'acts.kind',
        'acts.link',
        'acts.at',
        'acts.method',
        'acts.agent_id',
        'agents.text as agent',
        'recipients.accepted_at',
        'recipients.at as answered_at',
        'recipients.opened_at',
        'mailings.started_at',
        'mailings.sequence_id',
      ])
      .where('acts.verdict', 'is', null)
      .where((eb) => eb.or([eb('acts.kind', '=', 'open'), eb('acts.at', '<=', before)]))
      .orderBy('acts.id')
      .limit(limit),
  )
}
export type UnjudgedAct = ReturnType<typeof unjudgedActs>[number]

/** Hands acts to whom those who did them have become since. */
export function handOverActs(db: Database, acts: readonly UnjudgedAct[]) {
  for (const { id, became } of acts)
    if (became !== null)
      run(db, q.updateTable('acts').set({ person_id: became }).where('id', '=', id))
}

/** When a recipient followed which link. */
export function clicksOf(
  db: Database,
  { mailingId, personId, round }: Addressed,
): { link: number; at: number }[] {
  return all(
    db,
    q
      .selectFrom('acts')
      .select(['link', 'at'])
      .$narrowType<{ link: number }>()
      .where('mailing_id', '=', mailingId)
      .where('person_id', '=', personId)
      .where('round', '=', round)
      .where(sql<SqlBool>`kind = 'click'`),
  )
}

/** How many links the letter has of its own; products that may be picked are not counted. */
export function linkCount(db: Database, mailingId: number): number {
  return one(
    db,
    q
      .selectFrom('mailing_links')
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where('mailing_id', '=', mailingId)
      .where('no', '<', FIRST_PRODUCT_LINK),
  )!.n
}

/**
 * Writes a verdict and what follows from it: the recipient's first human open and click (a human
 * click implies a human open), machine opens and scanner clicks apart, and the mailing's counts.
 */
export function applyVerdict(db: Database, act: UnjudgedAct, verdict: Verdict) {
  run(db, q.updateTable('acts').set({ verdict }).where('id', '=', act.id))
  const first = (column: 'opened_at' | 'clicked_at' | 'machine_at' | 'scanner_at') =>
    run(
      db,
      q
        .updateTable('recipients')
        .set({ [column]: act.at, ...(column === 'opened_at' && { opened_on: act.agent_id }) })
        .where('mailing_id', '=', act.mailing_id)
        .where('person_id', '=', act.person_id)
        .where('round', '=', act.round)
        .where(column, 'is', null),
    ).changes
  if (verdict === 'machine') {
    if (act.kind === 'open')
      shiftTotals(db, act.mailing_id, { machine_opened: first('machine_at') })
    else shiftTotals(db, act.mailing_id, { scanner_clicked: first('scanner_at') })
    return
  }
  const opened = first('opened_at')
  const clicked = act.kind === 'click' ? first('clicked_at') : 0
  shiftTotals(db, act.mailing_id, { opened, clicked })
  if (act.started_at === null || opened + clicked === 0) return
  const ownBegan = act.sequence_id === null ? null : (act.accepted_at ?? act.answered_at)
  const hour = hourOf(act.at, { began: act.started_at, ownBegan })
  addToHour(db, act.mailing_id, hour, opened, clicked)
}

function addToHour(db: Database, mailingId: number, hour: number, opens: number, clicks: number) {
  run(
    db,
    q
      .insertInto('mailing_hours')
      .values({ mailing_id: mailingId, hour, opens, clicks })
      .onConflict((c) =>
        c.columns(['mailing_id', 'hour']).doUpdateSet((eb) => ({
          opens: eb('mailing_hours.opens', '+', opens),
          clicks: eb('mailing_hours.clicks', '+', clicks),
        })),
      ),
  )
}

/** Notes that a recipient left the list by this mailing's link. */
export function recordLeaving(db: Database, { mailingId, personId, round }: Addressed, at: number) {
  transact(db, () => {
    const { changes } = run(
      db,
      q
        .updateTable('recipients')
        .set({ left_at: at })
        .where('mailing_id', '=', mailingId)
        .where('person_id', '=', personId)
        .where('round', '=', round)
        .where('left_at', 'is', null),
    )
    shiftTotals(db, mailingId, { left_list: changes })
  })
}

/**
 * Makes somebody's clicks another's. Clicks are found by their mailing; opens are only ever looked at through their
 * recipient. Who followed the same link in the same round as both is one from now on.
 */
export function moveClicks(db: Database, from: number, to: number) {
  const mailings = all(
    db,
    q.selectFrom('recipients').select('mailing_id').distinct().where('person_id', '=', from),
  )
  for (const { mailing_id } of mailings) {
    const followed = (person: number) => sql`select round, link from acts
      where mailing_id = ${mailing_id} and person_id = ${person} and verdict = 'human' and kind = 'click'`
    run(
      db,
      raw(sql`update mailing_link_totals as t set people = people - (select count(*) from (
          ${followed(from)} intersect ${followed(to)}) as both where both.link = t.no)
        where mailing_id = ${mailing_id}`),
    )
    run(
      db,
      q
        .updateTable('acts')
        .set({ person_id: to })
        .where('mailing_id', '=', mailing_id)
        .where('person_id', '=', from)
        .where(() => sql<SqlBool>`kind = 'click'`),
    )
  }
}

/** So many rows are looked through at once, so that nobody waits for it. */
const ACTS_AT_ONCE = 50_000

/**
 * Makes what else of somebody's acts there is another's: opens, which are found by no index, since nobody asks for them so.
 * Looks through the rows behind `after`; the last it has seen, or null where there are no more.
 */
export function moveSomeActs(
  db: Database,
  { from, to }: { from: number; to: number },
  after: number,
): number | null {
  const last = lastAct(db)
  if (after >= last) return null
  run(
    db,
    q
      .updateTable('acts')
      .set({ person_id: to })
      .where('id', '>', after)
      .where('id', '<=', after + ACTS_AT_ONCE)
      .where('person_id', '=', from),
  )
  return Math.min(last, after + ACTS_AT_ONCE)
}

/** How many rows there are to look through, at most. */
export function lastAct(db: Database): number {
  return one(db, q.selectFrom('acts').select('id').orderBy('id', 'desc').limit(1))?.id ?? 0
}
