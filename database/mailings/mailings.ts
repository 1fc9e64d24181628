import type { Selectable } from 'kysely'
import type { Letter } from '../../core/letters'
import type { Overruling } from '../../core/proof'
import { readPlan } from '../../core/dispatch'
import { readRule, type Rule } from '../../core/segments'
import { timeToLocalInput } from '../../core/time'
import { frequencyCap } from '../account'
import type { Audience } from '../segments'
import { shiftTotals } from '../sending'
import { all, one, q, run, transact, type Database } from '../query'
import type { MailingState, Schema } from '../schema'
import { markOf } from '../versions'

export type Mailing = Selectable<Schema['mailings']>

/** All mailings that go out by themselves with their totals, the latest first. */
export function mailingsWithTotals(db: Database, within?: { from: number; to: number }) {
  let query = q
    .selectFrom('mailings')
    .leftJoin('mailing_totals as t', 't.mailing_id', 'mailings.id')
    .innerJoin('letters', 'letters.id', 'mailings.letter_id')
    .where('mailings.sequence_id', 'is', null)
    .selectAll('mailings')
    .select([
      'letters.subject',
      't.queued',
      't.claimed',
      't.deferred',
      't.uncertain',
      't.accepted',
      't.failed',
      't.dropped',
      't.bounced',
      't.complained',
      't.opened',
      't.clicked',
      't.left_list',
      't.machine_opened',
      't.scanner_clicked',
    ])
    .orderBy(
      (eb) => eb.fn.coalesce('mailings.started_at', 'mailings.scheduled_at', 'mailings.created_at'),
      'desc',
    )
    .orderBy('mailings.id', 'desc')
  if (within)
    query = query.where((eb) =>
      eb.or([
        eb.between('mailings.started_at', within.from, within.to),
        eb.and([
          eb('mailings.started_at', 'is', null),
          eb.between('mailings.scheduled_at', within.from, within.to),
        ]),
      ]),
    )
  return all(db, query)
}
/** Mailings that are no sequence's, the newest first, by name. */
export function mailingNames(db: Database, limit: number) {
  return all(
    db,
    q
      .selectFrom('mailings')
      .select(['id', 'name'])
      .where('sequence_id', 'is', null)
      .orderBy('id', 'desc')
      .limit(limit),
  )
}

export type MailingWithTotals = ReturnType<typeof mailingsWithTotals>[number]

export function mailingById(db: Database, id: number): Mailing | undefined {
  return one(db, q.selectFrom('mailings').selectAll().where('id', '=', id))
}

/** Drafts other than one, the latest first. */
export function draftsBesides(db: Database, id: number): { id: number; name: string }[] {
  return all(
    db,
    q
      .selectFrom('mailings')
      .select(['id', 'name'])
      .where('state', '=', 'draft')
      .where('sequence_id', 'is', null)
      .where('id', '<>', id)
      .orderBy('id', 'desc')
      .limit(50),
  )
}

/** Makes a mailing with a letter of its own, as a draft; its id. */
export function createMailing(
  db: Database,
  mailing: { name: string; listId: number | null; letter: Letter },
  now: number,
): number {
  return transact(db, () => {
    const { subject, previewText, document } = mailing.letter
    const letter = run(
      db,
      q.insertInto('letters').values({
        subject,
        preview_text: previewText,
        document: JSON.stringify(document),
        version: 1,
        updated_at: now,
      }),
    )
    return run(
      db,
      q.insertInto('mailings').values({
        name: mailing.name,
        state: 'draft',
        list_id: mailing.listId,
        letter_id: letter.id,
        created_at: now,
      }),
    ).id
  })
}

/** Who a mailing is for, or null while no list is chosen. */
export function audienceOf(
  db: Database,
  mailing: Pick<Mailing, 'list_id' | 'rule' | 'left_out' | 'past_cap'>,
): Audience | null {
  if (mailing.list_id === null) return null
  return {
    listId: mailing.list_id,
    // A rule that can't be read keeps nobody, and one that leaves out leaves out all; neither lets everybody in.
    rule: mailing.rule === null ? null : (readRule(JSON.parse(mailing.rule)) ?? nobody),
    leftOut:
      mailing.left_out === null ? null : (readRule(JSON.parse(mailing.left_out)) ?? everybody),
    cap: mailing.past_cap ? null : frequencyCap(db),
  }
}
const nobody: Rule = { kind: 'any', of: [] }
const everybody: Rule = { kind: 'all', of: [] }

/** Which version a mailing's name, audience and look are; whoever changes them says which one they saw. */
export function settingsVersion(
  db: Database,
  { name, list_id, rule, left_out, past_cap, letter_id }: Mailing,
): string {
  const letter = one(
    db,
    q.selectFrom('letters').select('letterhead_id').where('id', '=', letter_id),
  )
  return markOf([name, list_id, rule, left_out, past_cap, letter?.letterhead_id])
}

export function updateMailing(
  db: Database,
  id: number,
  change: Partial<
    Pick<Mailing, 'name' | 'list_id' | 'rule' | 'left_out' | 'past_cap' | 'plan' | 'overruled'>
  >,
) {
  if (Object.keys(change).length)
    run(db, q.updateTable('mailings').set(change).where('id', '=', id))
}

/** Deletes a mailing that never went out, with its letter. Whether it was there to delete. */
export function deleteMailing(db: Database, id: number): boolean {
  return transact(db, () => {
    const mailing = mailingById(db, id)
    if (!mailing || mailing.started_at !== null) return false
    run(db, q.deleteFrom('mailings').where('id', '=', id))
    run(db, q.deleteFrom('letters').where('id', '=', mailing.letter_id))
    return true
  })
}

/** Changes a mailing's state if it is still in one of `from`: compare-and-set. Whether it changed. */
export function moveMailing(
  db: Database,
  id: number,
  from: readonly MailingState[],
  to: MailingState,
  also: Partial<
    Pick<
      Mailing,
      | 'scheduled_at'
      | 'started_at'
      | 'finished_at'
      | 'held_by'
      | 'held_note'
      | 'waiting_note'
      | 'callback_until'
      | 'wish'
      | 'died_at'
    >
  > = {},
): boolean {
  return (
    run(
      db,
      q
        .updateTable('mailings')
        .set({ state: to, ...also })
        .where('id', '=', id)
        .where('state', 'in', [...from]),
    ).changes === 1
  )
}

/** Stops a mailing that is going out: nobody more is claimed, and the time of its test stands still. Whether it went out. */
export function holdMailing(
  db: Database,
  id: number,
  held: Pick<Mailing, 'held_by' | 'held_note'>,
  now: number,
): boolean {
  return transact(db, () => {
    if (!moveMailing(db, id, ['sending'], 'held', held)) return false
    const pause = { mailing_id: id, from_at: now, to_at: null }
    run(
      db,
      q
        .insertInto('mailing_pauses')
        .values(pause)
        .onConflict((c) => c.doUpdateSet({ to_at: null })),
    )
    return true
  })
}

/** Goes on with a mailing that was held while it went out. Whether it was. */
export function goOnWithMailing(db: Database, id: number, now: number): boolean {
  return transact(db, () => {
    const on = moveMailing(db, id, ['held'], 'sending', { held_by: null, held_note: null })
    if (on)
      run(
        db,
        q
          .updateTable('mailing_pauses')
          .set({ to_at: now })
          .where('mailing_id', '=', id)
          .where('to_at', 'is', null),
      )
    return on
  })
}

/** When a mailing that had stood still last went on; null where it never did. */
export function wentOnAt(db: Database, id: number): number | null {
  return (
    one(
      db,
      q
        .selectFrom('mailing_pauses')
        .select((eb) => eb.fn.max('to_at').as('at'))
        .where('mailing_id', '=', id),
    )?.at ?? null
  )
}

/** Keeps at what of a mailing an engine died; a second one that dies at the same shows that it was that. */
export function noteDeath(db: Database, id: number, what: string) {
  run(db, q.updateTable('mailings').set({ died_at: what }).where('id', '=', id))
}

/** For how long a mailing stood still after a moment, ms. */
export function pausedSince(db: Database, id: number, since: number, now: number): number {
  const pauses = all(
    db,
    q
      .selectFrom('mailing_pauses')
      .select(['from_at', 'to_at'])
      .where('mailing_id', '=', id)
      .where((eb) => eb.or([eb('to_at', 'is', null), eb('to_at', '>', since)])),
  )
  return pauses.reduce(
    (sum, { from_at, to_at }) => sum + Math.max(0, (to_at ?? now) - Math.max(from_at, since)),
    0,
  )
}

export function setWaitingNote(db: Database, id: number, note: string | null) {
  run(
    db,
    q
      .updateTable('mailings')
      .set({ waiting_note: note })
      .where('id', '=', id)
      .where('waiting_note', 'is not', note),
  )
}

/** The day and time that was wished for a scheduled mailing, as on a wall in the account's zone; null where there is none. */
export function wishOf({ wish, plan, scheduled_at }: Mailing, zone: string): string | null {
  if (scheduled_at === null) return null
  return wish ?? readPlan(JSON.parse(plan)).localAt ?? timeToLocalInput(scheduled_at, zone)
}

/** Scheduled mailings whose time has come and that can't be called back any more. */
export function dueMailings(db: Database, now: number, host: number): Mailing[] {
  return all(
    db,
    q
      .selectFrom('mailings')
      .selectAll()
      .where('state', '=', 'scheduled')
      .where('scheduled_at', '<=', now)
      .where((eb) => eb.or([eb('callback_until', 'is', null), eb('callback_until', '<=', host)]))
      .orderBy('scheduled_at'),
  )
}

export function nextMailingDue(db: Database): number | null {
  return (
    one(
      db,
      q
        .selectFrom('mailings')
        .select((eb) => eb.fn.min('scheduled_at').as('due'))
        .where('state', '=', 'scheduled'),
    )?.due ?? null
  )
}

export function sendingMailings(db: Database): Mailing[] {
  return all(
    db,
    q.selectFrom('mailings').selectAll().where('state', '=', 'sending').orderBy('started_at'),
  )
}

export function totalsOf(db: Database, mailingId: number) {
  return one(db, q.selectFrom('mailing_totals').selectAll().where('mailing_id', '=', mailingId))
}

/** Keeps where each link of a letter leads, under its number or in its order; a public click link leads nowhere else. */
export function saveLinks(
  db: Database,
  mailingId: number,
  links: readonly { no?: number; url: string; blockId: string; words: string }[],
) {
  transact(db, () => {
    run(db, q.deleteFrom('mailing_links').where('mailing_id', '=', mailingId))
    links.forEach(({ no, url, blockId, words }, at) =>
      run(
        db,
        q.insertInto('mailing_links').values({
          mailing_id: mailingId,
          no: no ?? at,
          url,
          block_id: blockId,
          words: words.slice(0, 200),
        }),
      ),
    )
  })
}

export function linkOf(db: Database, mailingId: number, no: number): string | null {
  return (
    one(
      db,
      q
        .selectFrom('mailing_links')
        .select('url')
        .where('mailing_id', '=', mailingId)
        .where('no', '=', no),
    )?.url ?? null
  )
}

/** Counts a mailing's rows anew: what `mailing_totals` must equal. For tests and repairs. */
export function recountTotals(db: Database, mailingId: number) {
  const states = all(
    db,
    q
      .selectFrom('recipients')
      .select(['state', (eb) => eb.fn.countAll<number>().as('n')])
      .where('mailing_id', '=', mailingId)
      .groupBy('state'),
  )
  const acts = one(
    db,
    q
      .selectFrom('recipients')
      .select((eb) => [
        eb.fn.count<number>('opened_at').as('opened'),
        eb.fn.count<number>('clicked_at').as('clicked'),
        eb.fn.count<number>('left_at').as('left_list'),
        eb.fn.count<number>('machine_at').as('machine_opened'),
        eb.fn.count<number>('scanner_at').as('scanner_clicked'),
      ])
      .where('mailing_id', '=', mailingId),
  )!
  return { ...Object.fromEntries(states.map(({ state, n }) => [state, n])), ...acts } as Record<
    string,
    number
  >
}

/** Writes totals from a recount, for rows that were loaded in bulk. */
export function resetTotals(db: Database, mailingId: number) {
  transact(db, () => {
    run(db, q.deleteFrom('mailing_totals').where('mailing_id', '=', mailingId))
    run(db, q.insertInto('mailing_totals').values({ mailing_id: mailingId }))
    shiftTotals(db, mailingId, recountTotals(db, mailingId))
  })
}

/** Which blockers the owner lets pass; null where none. */
export function overrulingOf({ overruled }: Pick<Mailing, 'overruled'>): Overruling | null {
  return overruled === null ? null : (JSON.parse(overruled) as Overruling)
}
