import { sql, type SqlBool } from 'kysely'
import { isPaused, maySince } from '../../core/readers'
import { heldBackAt } from '../readers'
import { mayMove, type Failure, type ProviderPacer, type RecipientState } from '../../core/delivery'
import { all, prepared, preparedOnce, q, run, transact, type Database } from '../query'
import { isWaiting, moveRecipient, shiftTotals, type Totals } from './recipients'

/** As many may be passed over in one turn. */
const PASSED_OVER = 500

/** As the partial index `recipients_claimed` says it. */
const isClaimed = sql<SqlBool>`recipients.state = 'claimed'`

/** Whether any message is on its way to a mail server just now, of whatever mailing. */
export const isAnyUnderWay = (db: Database): boolean => underWay(db).one({}) !== undefined
const underWay = preparedOnce<object, { engine: string | null }>(() =>
  q.selectFrom('recipients').select('engine').where(isClaimed).limit(1),
)

/** Somebody who may be claimed, with what the merge needs. */
export interface Candidate {
  person_id: number
  round: number
  state: RecipientState
  attempts: number
  first_attempt_at: number | null
  domain: string
  address: string
  normal: string
  first_name: string | null
  last_name: string | null
  fields: string
  variant: number | null
}

/** The same with what they asked for about how much mail they get. */
type Asked = Candidate & {
  paused_until: number | null
  one_in_days: number | null
  last_sent_at: number | null
}

/** What came of one conversation with the mail server. */
export interface Settled {
  personId: number
  round: number
  to: 'accepted' | 'deferred' | 'failed' | 'uncertain' | 'queued'
  answer: string | null
  /** Why it was refused for good. */
  failure?: Failure
  /** Which of the letter's rules held for them, as bits; null where it has none. */
  truth?: number | null
  /** When to try again, for those deferred or back in the queue. */
  due?: number
}

/**
 * The claims of one engine on one mailing. Who may come next is only read; a claim is written when their conversation is
 * about to begin, so that what is claimed and not settled in the database is never more than what is in conversation.
 */
export function claimsOf(
  db: Database,
  engine: string,
  mailingId: number,
  pace: ProviderPacer | null = null,
  ofSequence = false,
) {
  const candidates = prepared<{ now: number; limit: number }, Asked>(db, (value) =>
    q
      .selectFrom('recipients')
      .innerJoin('people', 'people.id', 'recipients.person_id')
      .leftJoin('own_limits as l', 'l.person_id', 'recipients.person_id')
      .select(['paused_until', 'one_in_days'])
      .select(
        sql<
          number | null
        >`case when one_in_days is not null then (select f.last_sent_at from facts as f where f.person_id = l.person_id) end`.as(
          'last_sent_at',
        ),
      )
      .select([
        'recipients.person_id',
        'round',
        'state',
        'attempts',
        'first_attempt_at',
        'address',
        'normal',
        'domain',
        'first_name',
        'last_name',
        'fields',
        'variant',
      ])
      .where('mailing_id', '=', mailingId)
      .where(() => isWaiting)
      .where('due', '<=', value('now'))
      .orderBy('due')
      .limit(value('limit')),
  )
  const claim = prepared<{ now: number; person: number; round: number; from: RecipientState }>(
    db,
    (value) =>
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
        .where('round', '=', value('round'))
        .where('state', '=', value('from'))
        .where(({ not }) => not(heldBackAt(sql.ref<number>('recipients.person_id'), value('now')))),
  )
  const postpone = prepared<{ due: number; person: number; round: number; from: RecipientState }>(
    db,
    (value) =>
      q
        .updateTable('recipients')
        .set({ due: value('due') })
        .where('mailing_id', '=', mailingId)
        .where('person_id', '=', value('person'))
        .where('round', '=', value('round'))
        .where('state', '=', value('from')),
  )
  const settle = prepared<
    Omit<Settled, 'personId' | 'failure'> & {
      failure: Failure | null
      now: number
      person: number
      due: number
      acceptedAt: number | null
      truth: number | null
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
        failure: value('failure'),
        engine: null,
        accepted_at: eb.fn.coalesce(eb.val(value('acceptedAt')), 'accepted_at'),
        truth: eb.fn.coalesce(eb.val(value('truth')), 'truth'),
      }))
      .where('mailing_id', '=', mailingId)
      .where('person_id', '=', value('person'))
      .where('round', '=', value('round'))
      .where('engine', '=', engine)
      .where('state', '=', value('from')),
  )
  /** Whether somebody asked for less mail than this; what is to be done about it is done. */
  function askedForLess(candidate: Asked, now: number): boolean {
    const { person_id: person, round, state: from, paused_until, one_in_days } = candidate
    const limits = { pausedUntil: paused_until, oneInDays: one_in_days }
    const since = maySince(limits, candidate.last_sent_at)
    if (since <= now) return false
    if (ofSequence) postpone.run({ due: since, person, round, from })
    else {
      const answer = isPaused(limits, now) ? 'paused by themselves' : 'over their own limit'
      const of = { mailingId, personId: person, round }
      moveRecipient(db, of, from, 'dropped', now, { answer })
    }
    return true
  }
  return {
    /**
     * Who may be claimed next, besides those who are known to the caller. Those whose provider wants no more just now are
     * passed over until it does, so that others have their turn. Who asked for less mail than that waits with the mail of
     * a sequence, and does not get that of a mailing.
     */
    upcoming(limit: number, besides: ReadonlySet<number>, now: number): Candidate[] {
      if (limit <= 0) return []
      const found: Candidate[] = []
      const read = limit + besides.size + (pace ? PASSED_OVER : 0)
      for (const candidate of candidates.all({ now, limit: read })) {
        if (found.length === limit) break
        const { person_id: person, round, state: from } = candidate
        // Of two rounds of somebody's the other waits for its turn.
        if (besides.has(person) || found.some((one) => one.person_id === person)) continue
        if (askedForLess(candidate, now)) continue
        const may = pace?.mayGo(candidate.domain, now) ?? now
        if (may > now) postpone.run({ due: may, person, round, from })
        else found.push(candidate)
      }
      return found
    },
    /** Claims those of some that are still as they were read. */
    claim<T extends Candidate>(some: readonly T[], now: number): T[] {
      const totals: Totals = {}
      const claimed = some.filter((candidate) => {
        const { person_id, round, state } = candidate
        if (claim.run({ now, person: person_id, round, from: state }) === 0) return false
        totals[state] = (totals[state] ?? 0) - 1
        totals.claimed = (totals.claimed ?? 0) + 1
        candidate.attempts++
        candidate.first_attempt_at ??= now
        return true
      })
      shiftTotals(db, mailingId, totals)
      return claimed
    },
    settle(outcomes: readonly Settled[], now: number) {
      const totals: Totals = {}
      for (const outcome of outcomes) {
        const { personId, round, to, answer, failure = null, due, truth = null } = outcome
        const values = {
          to,
          answer,
          failure,
          now,
          person: personId,
          round,
          due: due ?? now,
          acceptedAt: to === 'accepted' ? now : null,
          truth,
          from: 'claimed' as RecipientState,
        }
        // An engine that was given up for dead may still bring the answer of what became uncertain.
        for (const from of ['claimed', 'uncertain'] as const) {
          values.from = from
          if (!mayMove(from, to) || settle.run(values) === 0) continue
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
        .select(['mailing_id as mailingId', 'person_id as personId', 'round'])
        .where(() => isClaimed)
        .where('engine', 'not in', ['', ...liveEngines]),
    )
    for (const of of lost)
      moveRecipient(db, of, 'claimed', 'uncertain', now, {
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
