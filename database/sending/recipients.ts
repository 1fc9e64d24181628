import { sql, type SqlBool } from 'kysely'
import { mayMove, type Addressed, type RecipientState } from '../../core/delivery'
import type { DueLater } from '../../core/dispatch'
import { preparedOnce, all, one, q, run, transact, type Database } from '../query'
import type { ActTotal, Schema } from '../schema'

/**
 * In SQL's own words, not as bound values: only then does SQLite see that it is the condition of the
 * partial index `recipients_due`.
 */
export const isWaiting = sql<SqlBool>`recipients.state in ('queued', 'deferred')`

export type Totals = Partial<Record<RecipientState | ActTotal, number>>

/** Adds to a mailing's totals. Always in the transaction that changes the rows they count. */
export function shiftTotals(db: Database, mailingId: number, by: Totals) {
  const changes = Object.entries(by).filter(([, n]) => n !== 0)
  if (changes.length === 0) return
  run(
    db,
    q
      .updateTable('mailing_totals')
      .set(
        Object.fromEntries(changes.map(([column, n]) => [column, sql`${sql.ref(column)} + ${n}`])),
      )
      .where('mailing_id', '=', mailingId),
  )
}

/** A mailing that goes out has totals from the beginning. */
export function beginTotals(db: Database, mailingId: number) {
  run(
    db,
    q
      .insertInto('mailing_totals')
      .values({ mailing_id: mailingId })
      .onConflict((c) => c.doNothing()),
  )
}

/** Puts one person on the recipient list of a mailing that is going out; who is on it already stays as they are. */
export function addRecipient(db: Database, of: Addressed, now: number) {
  transact(db, () => {
    const { add, count } = recipientAdder(db, now)
    add(of)
    count()
  })
}

/** The same for many of one transaction: the mailings' totals are changed when all are on their lists, by `count`. */
export function recipientAdder(db: Database, now: number) {
  const added = new Map<number, number>()
  return {
    add({ mailingId, personId, round }: Addressed) {
      if (!added.has(mailingId)) beginTotals(db, mailingId)
      const many = addOne(db).run({ mailingId, personId, round, now })
      added.set(mailingId, (added.get(mailingId) ?? 0) + many)
    },
    count() {
      for (const [mailingId, queued] of added) shiftTotals(db, mailingId, { queued })
      added.clear()
    },
  }
}

const addOne = preparedOnce<Addressed & { now: number }>((value) =>
  q
    .insertInto('recipients')
    .values({
      ...{ mailing_id: value('mailingId'), person_id: value('personId'), round: value('round') },
      ...{ state: 'queued', at: value('now'), due: value('now') },
    })
    .onConflict((c) => c.doNothing()),
)

/** Whether somebody is on a mailing's recipient list, whatever came of it. */
export const isRecipient = (db: Database, of: Addressed): boolean =>
  onList(db).one(of) !== undefined
const onList = preparedOnce<Addressed, { state: string }>((value) =>
  q
    .selectFrom('recipients')
    .select('state')
    .where('mailing_id', '=', value('mailingId'))
    .where('person_id', '=', value('personId'))
    .where('round', '=', value('round')),
)

/** Takes a person who has not been mailed yet off every mailing on its way (or those to one list). */
export function dropOpenRecipients(
  db: Database,
  personId: number,
  reason: string,
  now: number,
  listId?: number,
) {
  transact(db, () => {
    let open = q
      .selectFrom('recipients')
      .innerJoin('mailings', 'mailings.id', 'recipients.mailing_id')
      .select(['recipients.mailing_id as mailingId', 'recipients.round', 'recipients.state'])
      .where('recipients.person_id', '=', personId)
      .where('recipients.state', 'in', ['queued', 'deferred'])
    if (listId !== undefined) open = open.where('mailings.list_id', '=', listId)
    for (const { state, ...of } of all(db, open))
      moveRecipient(db, { ...of, personId }, state, 'dropped', now, { answer: reason })
  })
}

/**
 * Moves one recipient from a state to another, if it is still in the first: compare-and-set.
 * Whether it moved. Throws where no such move exists.
 */
export function moveRecipient(
  db: Database,
  { mailingId, personId, round }: Addressed,
  from: RecipientState,
  to: RecipientState,
  now: number,
  also: Partial<Pick<Schema['recipients'], 'answer' | 'due' | 'accepted_at' | 'failure'>> = {},
): boolean {
  if (!mayMove(from, to)) throw new Error(`A recipient does not go from ${from} to ${to}.`)
  return transact(db, () => {
    const { changes } = run(
      db,
      q
        .updateTable('recipients')
        .set({ state: to, at: now, ...also })
        .where('mailing_id', '=', mailingId)
        .where('person_id', '=', personId)
        .where('round', '=', round)
        .where('state', '=', from),
    )
    if (changes) shiftTotals(db, mailingId, { [from]: -1, [to]: 1 })
    return changes === 1
  })
}

/** Drops all who have not been mailed yet, because the user stopped the mailing. How many they are. */
export function dropRest(db: Database, mailingId: number, now: number): number {
  return transact(db, () => {
    const open = all(
      db,
      q
        .selectFrom('recipients')
        .select(['state', (eb) => eb.fn.countAll<number>().as('n')])
        .where('mailing_id', '=', mailingId)
        .where('state', 'in', ['queued', 'deferred'])
        .groupBy('state'),
    )
    run(
      db,
      q
        .updateTable('recipients')
        .set({ state: 'dropped', at: now, answer: 'the rest was cancelled' })
        .where('mailing_id', '=', mailingId)
        .where('state', 'in', ['queued', 'deferred']),
    )
    const dropped = open.reduce((sum, { n }) => sum + n, 0)
    shiftTotals(db, mailingId, {
      ...Object.fromEntries(open.map(({ state, n }) => [state, -n])),
      dropped,
    })
    return dropped
  })
}

/** When the next recipient of any mailing on its way is due; null where none is. */
export function nextRecipientDue(db: Database): number | null {
  const sending = all(db, q.selectFrom('mailings').select('id').where('state', '=', 'sending'))
  const dues = sending.flatMap(({ id }) => nextDueOf(db, id) ?? [])
  return dues.length ? Math.min(...dues) : null
}

/** Who of a mailing waits for their hour or for another try; null where nobody does. */
export function dueLater(db: Database, mailingId: number, now: number): DueLater | null {
  const found = one(
    db,
    q
      .selectFrom('recipients')
      .select((eb) => [
        eb.fn.countAll<number>().as('people'),
        eb.fn.min<number | null>('due').as('first'),
        eb.fn.max<number | null>('due').as('last'),
      ])
      .where('mailing_id', '=', mailingId)
      .where('due', '>', now)
      .where(() => isWaiting),
  )!
  return found.first === null || found.last === null
    ? null
    : { people: found.people, first: found.first, last: found.last }
}

/** When the next recipient of one mailing is due; null where nobody waits. */
export function nextDueOf(db: Database, mailingId: number): number | null {
  const first = one(
    db,
    q
      .selectFrom('recipients')
      .select('due')
      .where('mailing_id', '=', mailingId)
      .where(() => isWaiting)
      .orderBy('due')
      .limit(1),
  )
  return first?.due ?? null
}

/** One recipient as it stands. */
export function readRecipient(db: Database, { mailingId, personId, round }: Addressed) {
  return one(
    db,
    q
      .selectFrom('recipients')
      .selectAll()
      .where('mailing_id', '=', mailingId)
      .where('person_id', '=', personId)
      .where('round', '=', round),
  )
}
