import { createHash, randomBytes } from 'node:crypto'
import { sql, type Selectable } from 'kysely'
import {
  CONFIRM_WITHIN,
  LOOK_WITHIN,
  REMIND_AFTER,
  sendingAfter,
  WINDOWS,
  type Doubt,
  type Entered,
  type SendingEvent,
  type SendingState,
} from '../../core/sign-ups'
import { deviceOf } from '../../core/counting'
import type { ReaderLanguage } from '../../core/readers'
import { all, one, preparedOnce, q, run, type Database } from '../query'
import { seal } from '../sealed'
import { MINUTE } from '../../core/time'
import type { Schema } from '../schema'
import type { SignUpMail } from './schema'

type Row = Selectable<Schema['sign_up_sendings']>
export type Sending = Omit<Row, 'given' | 'ticked' | 'source'> & {
  given: Entered['values']
  ticked: string[]
  source: Record<string, string>
}

/** What is kept of a sending besides where it stands. */
export interface NewSending {
  signUpId: number
  version: number
  language: ReaderLanguage
  entered: Entered
  page: string | null
  ip: string | null
  agent: string | null
  state: SendingState
  doubt: Doubt | null
  mail: SignUpMail | null
  /** Which work their browser did for it; null: none. */
  work: string | null
}

/** Keeps a sending, with the secret of its link; its mail, if there is one, is due at once. Its id. */
export function addSending(db: Database, sending: NewSending, now: number): number {
  const { entered, state, mail } = sending
  const secret = randomBytes(24).toString('base64url')
  return insertSending(db).one({
    ...{ sign_up_id: sending.signUpId, version: sending.version, language: sending.language },
    ...{ at: now, address: entered.address.address, normal: entered.address.normal },
    given: JSON.stringify(entered.values),
    ticked: JSON.stringify(entered.ticked),
    page: sending.page,
    source: JSON.stringify(entered.source),
    device: deviceOf(sending.agent ?? ''),
    ip: sending.ip,
    agent: sending.agent?.slice(0, 300) ?? null,
    ...{ state, doubt: sending.doubt, work: sending.work },
    hash: hashOf(secret),
    // Kept away, it never gets a mail; else one may still go out.
    secret: state === 'kept-away' ? null : seal(db, secret),
    mail,
    send_due: mail && now,
    ...dueIn(state, now),
  })!.id
}
const written = [
  ...(['sign_up_id', 'version', 'language', 'at', 'address', 'normal', 'given'] as const),
  ...(['ticked', 'page', 'source', 'device', 'ip', 'agent', 'state', 'doubt', 'work'] as const),
  ...(['hash', 'secret', 'mail', 'send_due', 'remind_due', 'over_due'] as const),
]
const insertSending = preparedOnce<
  Record<(typeof written)[number], string | number | null>,
  { id: number }
>((value) =>
  q
    .insertInto('sign_up_sendings')
    .values(Object.fromEntries(written.map((column) => [column, value(column)])) as never)
    .returning('id'),
)

/** When a sending in a state is reminded, and when it is over. */
const dueIn = (state: SendingState, now: number) =>
  state === 'pending'
    ? { remind_due: now + REMIND_AFTER, over_due: now + CONFIRM_WITHIN }
    : { remind_due: null, over_due: state === 'for-a-look' ? now + LOOK_WITHIN : null }

/** How many sendings came before, each within its own time; see `Circumstances` of core. `all`: from this network, whatever they are. */
export function sendingsBefore(
  db: Database,
  of: { normal: string; ip: string | null; signUpId: number },
  now: number,
): { address: number; network: number; form: number; unproven: number; all: number } {
  const within = (column: keyof typeof counted, value: string | number, ms: number) =>
    counted[column](db).one({ value, since: now - ms })!
  const form = within('sign_up_id', of.signUpId, WINDOWS.form)
  const network = of.ip === null ? null : within('ip', of.ip, WINDOWS.network)
  return {
    address: within('normal', of.normal, WINDOWS.address).undoubted,
    network: network?.worked ?? 0,
    form: form.worked,
    unproven: form.n - form.worked,
    all: network?.n ?? 0,
  }
}
const countedBy = (column: 'normal' | 'ip' | 'sign_up_id') =>
  preparedOnce<
    { value: string | number; since: number },
    { n: number; worked: number; undoubted: number }
  >((value) =>
    q
      .selectFrom('sign_up_sendings')
      .select([
        (eb) => eb.fn.countAll<number>().as('n'),
        sql<number>`count(work)`.as('worked'),
        sql<number>`coalesce(sum(doubt is null), 0)`.as('undoubted'),
      ])
      .where(column, '=', value('value'))
      .where('at', '>', value('since')),
  )
const counted = {
  normal: countedBy('normal'),
  ip: countedBy('ip'),
  sign_up_id: countedBy('sign_up_id'),
}

/** Whether a piece of work was handed in before. */
export const isWorkUsed = (db: Database, work: string): boolean =>
  workUsed(db).one({ work }) !== undefined
const workUsed = preparedOnce<{ work: string }, { id: number }>((value) =>
  q.selectFrom('sign_up_sendings').select('id').where('work', '=', value('work')).limit(1),
)

/** The last time that a mail of a kind was sent, or is to be, for an address; null where none was. */
export function lastMailTo(db: Database, normal: string, mail: SignUpMail): number | null {
  const last = q
    .selectFrom('sign_up_sendings')
    .select((eb) => eb.fn.max('at').as('at'))
    .where('normal', '=', normal)
    .where('mail', '=', mail)
  return one(db, last)?.at ?? null
}

/** Sends the confirming letter once more, where the last went out a while ago; whether it will. */
export function mailAgain(db: Database, sending: Sending, now: number): boolean {
  const { id, state, send_due, mailed, mailed_at } = sending
  if (state !== 'pending' || send_due !== null || mailed >= MOST_MAILS) return false
  if (mailed_at !== null && now - mailed_at < AGAIN_AFTER) return false
  const set = { mail: 'confirm' as const, send_due: now, tries: 0 }
  return run(db, q.updateTable('sign_up_sendings').set(set).where('id', '=', id)).changes === 1
}
const MOST_MAILS = 4
const AGAIN_AFTER = 10 * MINUTE

/** A sending of this form for this address that still waits to be confirmed, whose values are the same. */
export function sameSending(
  db: Database,
  of: { signUpId: number; version: number; entered: Entered },
): Sending | null {
  const row = findSame(db).one({
    ...{ normal: of.entered.address.normal, signUp: of.signUpId, version: of.version },
    ...{ given: JSON.stringify(of.entered.values), ticked: JSON.stringify(of.entered.ticked) },
  })
  return row ? sendingFrom(row) : null
}
const findSame = preparedOnce<
  { normal: string; signUp: number; version: number; given: string; ticked: string },
  Row
>((value) =>
  q
    .selectFrom('sign_up_sendings')
    .selectAll()
    .where('normal', '=', value('normal'))
    // `+`: found by the address, which has few, and not by the form, which has many.
    .where(sql`+sign_up_id`, '=', value('signUp'))
    .where('version', '=', value('version'))
    .where('given', '=', value('given'))
    .where('ticked', '=', value('ticked'))
    .where('state', 'in', ['pending', 'for-a-look'])
    .limit(1),
)

export function sendingById(db: Database, id: number): Sending | null {
  const row = one(db, q.selectFrom('sign_up_sendings').selectAll().where('id', '=', id))
  return row ? sendingFrom(row) : null
}

/** The sending whose link was mailed; null where the link is none of ours. */
export function sendingOfLink(db: Database, secret: string): Sending | null {
  const found = q.selectFrom('sign_up_sendings').selectAll().where('hash', '=', hashOf(secret))
  const row = one(db, found)
  return row ? sendingFrom(row) : null
}

/** Moves a sending by what happened to it; whether it was in a state where that can happen. In its caller's transaction. */
export function moveSending(
  db: Database,
  sending: Pick<Sending, 'id' | 'state'>,
  event: SendingEvent,
  now: number,
  more: {
    person_id?: number
    mail?: SignUpMail | null
    doubt?: Doubt
    tell_due?: number | null
  } = {},
): boolean {
  const state = sendingAfter(sending.state, event)
  if (!state) return false
  const mail = event === 'let-through' ? ('confirm' as const) : (more.mail ?? null)
  return (
    run(
      db,
      q
        .updateTable('sign_up_sendings')
        .set({
          ...{ state, ...dueIn(state, now), ...more, mail, send_due: mail && now, tries: 0 },
          ...(state === 'pending' || state === 'for-a-look'
            ? {}
            : { ended_at: now, ...(mail ? {} : { secret: null }) }),
        })
        .where('id', '=', sending.id)
        .where('state', '=', sending.state),
    ).changes === 1
  )
}

/** Sendings whose time is over, the earliest first. */
export function sendingsOver(db: Database, now: number, limit: number): Sending[] {
  const over = q.selectFrom('sign_up_sendings').selectAll().where('over_due', '<=', now)
  return all(db, over.orderBy('over_due').limit(limit)).map(sendingFrom)
}

/** Sends the one reminder to those who have not confirmed for two days; how many. */
export function remindDue(db: Database, now: number): number {
  const due = q
    .updateTable('sign_up_sendings')
    .set({ mail: 'remind', send_due: now, tries: 0, remind_due: null })
    .where('remind_due', '<=', now)
  return run(db, due.where('state', '=', 'pending').where('send_due', 'is', null)).changes
}

/** What is left of a sending once it is forgotten whose it was: that it came, and what became of it. */
const nobodys = {
  ...{ person_id: null, address: '', normal: '', given: '{}', ip: null, agent: null, answer: null },
  ...{ secret: null, mail: null, send_due: null, remind_due: null, over_due: null, tell_due: null },
}

/** Forgets whose it was, of everything that somebody sent in or that was sent in for their address. */
export function forgetSendingsOf(db: Database, personId: number, normal: string) {
  const forget = q.updateTable('sign_up_sendings').set(nobodys)
  run(db, forget.where('person_id', '=', personId))
  run(db, forget.where('normal', '=', normal))
}

/** What one person sent in becomes another's, as two become one. */
export function moveSendings(db: Database, gone: number, kept: number) {
  const theirs = q.updateTable('sign_up_sendings').set({ person_id: kept })
  run(db, theirs.where('person_id', '=', gone))
}

/** Everything somebody sent in, the latest first. */
export function sendingsOf(db: Database, personId: number) {
  return all(
    db,
    q
      .selectFrom('sign_up_sendings as s')
      .innerJoin('sign_ups as f', 'f.id', 's.sign_up_id')
      .selectAll('s')
      .select('f.name')
      .where('person_id', '=', personId)
      .orderBy('s.id', 'desc'),
  )
}

/** Sendings of a form in a state, the latest first. */
export function sendingsIn(db: Database, signUpId: number, state: SendingState, limit: number) {
  const found = q
    .selectFrom('sign_up_sendings')
    .selectAll()
    .where('sign_up_id', '=', signUpId)
    .where('state', '=', state)
  return all(db, found.orderBy('id', 'desc').limit(limit)).map(sendingFrom)
}

/** Forgets whose it was, of what came before a time and nobody confirmed; at most `limit`. How many. */
export function forgetOldSendings(db: Database, before: number, limit: number): number {
  const old = q
    .selectFrom('sign_up_sendings')
    .select('id')
    .where('person_id', 'is', null)
    .where('normal', '<>', '')
    .where('at', '<', before)
    .orderBy('at')
    .limit(limit)
  return run(db, q.updateTable('sign_up_sendings').set(nobodys).where('id', 'in', old)).changes
}

export function sendingFrom(row: Row): Sending {
  return {
    ...row,
    given: JSON.parse(row.given) as Entered['values'],
    ticked: JSON.parse(row.ticked) as string[],
    source: JSON.parse(row.source) as Record<string, string>,
  }
}

const hashOf = (secret: string) => createHash('sha256').update(secret).digest('hex')
