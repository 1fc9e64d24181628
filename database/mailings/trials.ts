import { sql, type Selectable } from 'kysely'
import { openTrials, type ProviderSays, type TrialState } from '../../core/delivery'
import { all, one, q, run, transact, type Database } from '../query'
import { seal, unseal } from '../sealed'
import type { Schema } from '../schema'

export type TrialMailbox = Selectable<Schema['trial_mailboxes']>
export type NewTrialMailbox = Pick<
  TrialMailbox,
  'address' | 'host' | 'port' | 'secure' | 'login' | 'password'
>

/** A letter as it goes to a mailbox to be tried. */
export interface TrialLetter {
  subject: string
  html: string
  text: string
  /** Headers as a subscriber's letter has them. */
  headers: Record<string, string>
}

/** A send that was begun and not ended for so long, by the host's clock, is begun anew. */
const GIVEN_UP = 60_000

export function trialMailboxes(db: Database): TrialMailbox[] {
  return all(
    db,
    q.selectFrom('trial_mailboxes').selectAll().where('removed_at', 'is', null).orderBy('id'),
  ).map((mailbox) => ({ ...mailbox, password: unseal(db, mailbox.password) }))
}

/** Adds a mailbox, or gives one of this address its new settings; its id. */
export function keepTrialMailbox(db: Database, given: NewTrialMailbox, now: number): number {
  const mailbox = { ...given, password: seal(db, given.password) }
  return one(
    db,
    q
      .insertInto('trial_mailboxes')
      .values({ ...mailbox, created_at: now, removed_at: null })
      .onConflict((c) => c.column('address').doUpdateSet({ ...mailbox, removed_at: null }))
      .returning('id'),
  )!.id
}

/** Takes a mailbox away, or with null brings it back. Whether there is one. */
export function removeTrialMailbox(db: Database, id: number, at: number | null): boolean {
  const gone = q.updateTable('trial_mailboxes').set({ removed_at: at }).where('id', '=', id)
  return run(db, gone).changes === 1
}

/** Has a letter sent to every mailbox, in place of what became of it earlier; how many there are. */
export function askTrials(
  db: Database,
  of: { mailingId: number; version: number },
  letter: TrialLetter,
  now: number,
): number {
  return transact(db, () => {
    run(db, q.deleteFrom('trials').where('mailing_id', '=', of.mailingId))
    const mailboxes = trialMailboxes(db)
    for (const { id } of mailboxes)
      run(
        db,
        q.insertInto('trials').values({
          mailing_id: of.mailingId,
          mailbox_id: id,
          version: of.version,
          letter: JSON.stringify(letter),
          state: 'waiting',
          asked_at: now,
        }),
      )
    return mailboxes.length
  })
}

/** What became of a mailing's letter in each mailbox, the oldest mailbox first. */
export function trialsOf(db: Database, mailingId: number) {
  return all(
    db,
    q
      .selectFrom('trials as t')
      .innerJoin('trial_mailboxes as m', 'm.id', 't.mailbox_id')
      .select([
        'm.address',
        't.version',
        't.state',
        't.asked_at',
        't.folder',
        't.spf',
        't.dkim',
        't.dmarc',
        't.words',
        sql<number | null>`t.found_host - t.sent_host`.as('took'),
      ])
      .where('t.mailing_id', '=', mailingId)
      .orderBy('m.id'),
  )
}

type Trial = Selectable<Schema['trials']> & { address: string }

/** Takes a trial that is to be sent, for whoever calls first; undefined where there is none. */
export function takeTrial(db: Database, host: number): Trial | undefined {
  return transact(db, () => {
    const next = one(
      db,
      q
        .selectFrom('trials as t')
        .innerJoin('trial_mailboxes as m', 'm.id', 't.mailbox_id')
        .selectAll('t')
        .select('m.address')
        .where('t.state', 'in', openTrials)
        .where((or) =>
          or.or([
            or('t.state', '=', 'waiting'),
            or.and([or('t.state', '=', 'sending'), or('t.sent_host', '<', host - GIVEN_UP)]),
          ]),
        )
        .limit(1),
    )
    if (next) changeTrial(db, next, { state: 'sending', sent_host: host })
    return next
  })
}

/** Trials that have gone out and are to be looked for now, with their mailboxes; each is looked for by whoever asks first. */
export function trialsToLookFor(db: Database, host: number, again: number) {
  return transact(db, () => {
    const due = all(
      db,
      q
        .selectFrom('trials as t')
        .innerJoin('trial_mailboxes as m', 'm.id', 't.mailbox_id')
        .selectAll('m')
        .select(['t.mailing_id', 't.mailbox_id', 't.message_id', 't.sent_host'])
        .where('t.state', '=', 'sent')
        .where('t.next_look_host', '<=', host),
    )
    for (const trial of due) changeTrial(db, trial, { next_look_host: host + again })
    return due.map((trial) => ({ ...trial, password: unseal(db, trial.password) }))
  })
}

export function changeTrial(
  db: Database,
  { mailing_id, mailbox_id }: Pick<Trial, 'mailing_id' | 'mailbox_id'>,
  change: Partial<
    { state: TrialState } & ProviderSays &
      Pick<
        Trial,
        'letter' | 'message_id' | 'sent_host' | 'next_look_host' | 'found_host' | 'folder'
      >
  >,
) {
  run(
    db,
    q
      .updateTable('trials')
      .set(change)
      .where('mailing_id', '=', mailing_id)
      .where('mailbox_id', '=', mailbox_id),
  )
}
