import { sql, type SqlBool } from 'kysely'
import { mayMove, type RecipientState } from '../core/delivery'
import { eligible, type Audience } from './audience'
import { all, one, prepared, q, run, transact, type Database } from './query'
import type { ActTotal, Schema } from './schema'

/**
 * Conditions in SQL's own words, not as bound values: only then does SQLite see that they are those
 * of the partial indexes `recipients_due` and `recipients_claimed`.
 */
const isWaiting = sql<SqlBool>`recipients.state in ('planned', 'queued', 'deferred')`
const isClaimed = sql<SqlBool>`recipients.state = 'claimed'`

type Totals = Partial<Record<RecipientState | ActTotal, number>>

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

/** Fixes who gets a mailing: everybody eligible now, queued. How many that are. */
export function planRecipients(
  db: Database,
  mailingId: number,
  audience: Audience,
  now: number,
): number {
  return transact(db, () => {
    run(
      db,
      q
        .insertInto('mailing_totals')
        .values({ mailing_id: mailingId })
        .onConflict((c) => c.doNothing()),
    )
    const { changes } = run(
      db,
      q
        .insertInto('recipients')
        .columns(['mailing_id', 'person_id', 'state', 'at', 'due'])
        .expression((eb) =>
          eb
            .selectFrom('people')
            .select([
              eb.val(mailingId).as('mailing_id'),
              'people.id',
              eb.val<RecipientState>('queued').as('state'),
              eb.val(now).as('at'),
              eb.val(now).as('due'),
            ])
            .where(() => eligible(db, audience, now)),
        )
        .onConflict((c) => c.doNothing()),
    )
    shiftTotals(db, mailingId, { queued: changes })
    return changes
  })
}

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
      .select(['recipients.mailing_id', 'recipients.state'])
      .where('recipients.person_id', '=', personId)
      .where('recipients.state', 'in', ['planned', 'queued', 'deferred'])
    if (listId !== undefined) open = open.where('mailings.list_id', '=', listId)
    for (const { mailing_id, state } of all(db, open)) {
      moveRecipient(db, mailing_id, personId, state, 'dropped', now, { answer: reason })
    }
  })
}

/**
 * Moves one recipient from a state to another, if it is still in the first: compare-and-set.
 * Whether it moved. Throws where no such move exists.
 */
export function moveRecipient(
  db: Database,
  mailingId: number,
  personId: number,
  from: RecipientState,
  to: RecipientState,
  now: number,
  also: Partial<Pick<Schema['recipients'], 'answer' | 'due' | 'accepted_at'>> = {},
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
        .where('state', '=', from),
    )
    if (changes) shiftTotals(db, mailingId, { [from]: -1, [to]: 1 })
    return changes === 1
  })
}

/** A recipient that an engine has claimed, with what the merge needs. */
export interface Claimed {
  person_id: number
  attempts: number
  first_attempt_at: number
  address: string
  normal: string
  first_name: string | null
  last_name: string | null
  fields: string
}

/** What came of one conversation with the mail server. */
export interface Settled {
  personId: number
  to: 'accepted' | 'deferred' | 'failed' | 'uncertain' | 'queued'
  answer: string | null
  /** When to try again, for those deferred or back in the queue. */
  due?: number
}

/**
 * The claims of one engine on one mailing. Both calls belong into one transaction a turn, so that
 * what is claimed and not settled in the database is never more than what is in conversation.
 */
export function claimsOf(db: Database, engine: string, mailingId: number) {
  const candidates = prepared<
    { now: number; limit: number },
    { person_id: number; state: RecipientState }
  >(db, (value) =>
    q
      .selectFrom('recipients')
      .select(['person_id', 'state'])
      .where('mailing_id', '=', mailingId)
      .where(() => isWaiting)
      .where('state', '!=', 'planned')
      .where('due', '<=', value('now'))
      .orderBy('due')
      .limit(value('limit')),
  )
  const claim = prepared<{ now: number; person: number; from: RecipientState }>(db, (value) =>
    q
      .updateTable('recipients')
      .set((eb) => ({
        state: 'claimed',
        engine,
        at: value('now'),
        attempts: eb('attempts', '+', 1),
        first_attempt_at: eb.fn.coalesce('first_attempt_at', eb.val(value('now'))),
      }))
      .where('mailing_id', '=', mailingId)
      .where('person_id', '=', value('person'))
      .where('state', '=', value('from')),
  )
  const details = prepared<{ person: number }, Claimed>(db, (value) =>
    q
      .selectFrom('recipients')
      .innerJoin('people', 'people.id', 'recipients.person_id')
      .select([
        'person_id',
        'attempts',
        'first_attempt_at',
        'address',
        'normal',
        'first_name',
        'last_name',
        'fields',
      ])
      .$narrowType<{ first_attempt_at: number }>()
      .where('mailing_id', '=', mailingId)
      .where('person_id', '=', value('person')),
  )
  const settle = prepared<
    Omit<Settled, 'personId'> & {
      now: number
      person: number
      due: number
      acceptedAt: number | null
      from: RecipientState
    }
  >(db, (value) =>
    q
      .updateTable('recipients')
      .set((eb) => ({
        state: value('to'),
        at: value('now'),
        due: value('due'),
        answer: value('answer'),
        engine: null,
        accepted_at: eb.fn.coalesce(eb.val(value('acceptedAt')), 'accepted_at'),
      }))
      .where('mailing_id', '=', mailingId)
      .where('person_id', '=', value('person'))
      .where('engine', '=', engine)
      .where('state', '=', value('from')),
  )
  return {
    claim(limit: number, now: number): Claimed[] {
      const claimed: Claimed[] = []
      const totals: Totals = {}
      for (const { person_id, state } of candidates.all({ now, limit })) {
        if (claim.run({ now, person: person_id, from: state }) === 0) continue
        totals[state] = (totals[state] ?? 0) - 1
        totals.claimed = (totals.claimed ?? 0) + 1
        claimed.push(details.one({ person: person_id })!)
      }
      shiftTotals(db, mailingId, totals)
      return claimed
    },
    settle(outcomes: readonly Settled[], now: number) {
      const totals: Totals = {}
      for (const { personId, to, answer, due } of outcomes) {
        const values = {
          to,
          answer,
          now,
          person: personId,
          due: due ?? now,
          acceptedAt: to === 'accepted' ? now : null,
        }
        // An engine that was given up for dead may still bring the answer of what became uncertain.
        for (const from of ['claimed', 'uncertain'] as const) {
          if (!mayMove(from, to) || settle.run({ ...values, from }) === 0) continue
          totals[from] = (totals[from] ?? 0) - 1
          totals[to] = (totals[to] ?? 0) + 1
          break
        }
      }
      shiftTotals(db, mailingId, totals)
    },
  }
}

/** What engines that no longer run had claimed becomes uncertain. How many recipients that were. */
export function claimsBecomeUncertain(
  db: Database,
  liveEngines: readonly string[],
  now: number,
): number {
  return transact(db, () => {
    const lost = all(
      db,
      q
        .selectFrom('recipients')
        .select(['mailing_id', 'person_id', 'engine'])
        .where(() => isClaimed)
        .where('engine', 'not in', ['', ...liveEngines]),
    )
    for (const { mailing_id, person_id } of lost)
      moveRecipient(db, mailing_id, person_id, 'claimed', 'uncertain', now, {
        answer: 'The engine stopped in the middle of the conversation.',
      })
    return lost.length
  })
}

/** Sends the uncertain of a mailing once more, because the user said so. How many they are. */
export function resendUncertain(db: Database, mailingId: number, now: number): number {
  return transact(db, () => {
    const { changes } = run(
      db,
      q
        .updateTable('recipients')
        .set({ state: 'queued', at: now, due: now, engine: null })
        .where('mailing_id', '=', mailingId)
        .where('state', '=', 'uncertain'),
    )
    shiftTotals(db, mailingId, { uncertain: -changes, queued: changes })
    return changes
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
        .where('state', 'in', ['planned', 'queued', 'deferred'])
        .groupBy('state'),
    )
    run(
      db,
      q
        .updateTable('recipients')
        .set({ state: 'dropped', at: now, answer: 'the rest was cancelled' })
        .where('mailing_id', '=', mailingId)
        .where('state', 'in', ['planned', 'queued', 'deferred']),
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
export function readRecipient(db: Database, mailingId: number, personId: number) {
  return one(
    db,
    q
      .selectFrom('recipients')
      .selectAll()
      .where('mailing_id', '=', mailingId)
      .where('person_id', '=', personId),
  )
}
