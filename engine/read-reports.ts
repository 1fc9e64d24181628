import { readToken, failures, type Addressed, type Failure } from '../core/delivery'
import type { Inbound, Trace } from '../core/inbound'
import { readAccount } from '../database/account'
import { mailingById } from '../database/mailings'
import {
  addReply,
  moveRecipient,
  readRecipient,
  recordLeaving,
  reportRead,
  unreadReports,
} from '../database/sending'
import { changeSubscription, followFailure, personNow, suppress } from '../database/people'
import { transact, type Database } from '../database'
import type { Engine, Work } from './engine'

/** Reads what came back by mail, and does what follows from it. */
export const readReports: Work = async (engine) => {
  const { db } = engine
  const reports = unreadReports(db, 50)
  for (const { id, raw } of reports) {
    const { outcome, personId } = await takeReport(engine, id, raw)
    reportRead(db, id, outcome, personId)
  }
  return reports.length > 0
}

/** What came of a report, and whom it is about. */
interface Taken {
  outcome: string
  personId: number | null
}

async function takeReport(
  { db, clock, log, readReport }: Engine,
  id: number,
  raw: string,
): Promise<Taken> {
  let inbound: Inbound
  try {
    inbound = await readReport(raw)
  } catch (error) {
    log.error({ error: (error as Error).message }, 'a report can’t be read')
    return { outcome: 'not understood', personId: null }
  }
  const of = whomOf(db, inbound.traces)
  const outcome = of
    ? transact(db, () => follow(db, id, inbound, of, clock()))
    : inbound.reading.kind === 'noted'
      ? 'not understood'
      : 'not ours'
  return { outcome, personId: of?.personId ?? null }
}

/** Whom a message is about: the first of its marks that we made ourselves, of somebody who was mailed. */
function whomOf(db: Database, traces: readonly Trace[]): Addressed | null {
  const account = readAccount(db)
  const by = {
    key: Buffer.from(account?.token_key ?? '', 'hex'),
    shortUpTo: account?.short_tokens_up_to ?? -1,
  }
  for (const { kind, token } of traces) {
    const of = readToken(by, kind, token)
    if (of) return { ...of, personId: personNow(db, of.personId) }
  }
  return null
}

/** What is done, and how it is called. */
function follow(
  db: Database,
  reportId: number,
  { reading, traces }: Inbound,
  of: Addressed,
  now: number,
): string {
  switch (reading.kind) {
    case 'bounced':
      return bounced(db, of, reading.failure, reading.answer, now)
    case 'complaint':
      return complained(db, of, now)
    case 'unsubscribing':
      return left(db, of, now)
    case 'reply': {
      if (!readRecipient(db, of)) return 'already known'
      // Who answers to the return path writes to a server, and means the sender all the same.
      const { from, subject, text } = reading
      addReply(db, { ...of, from, subject, text, reportId }, now)
      return traces[0]?.by === 'return path' ? 'reply to the return path' : 'reply'
    }
    case 'feedback':
      return `feedback: ${reading.type || 'unknown'}`.slice(0, 60)
    default:
      return reading.kind
  }
}

function bounced(
  db: Database,
  of: Addressed,
  failure: Failure,
  answer: string,
  now: number,
): string {
  const from = readRecipient(db, of)?.state
  if (from !== 'accepted' && from !== 'uncertain') return 'already known'
  const words = failures[failure].words
  moveRecipient(db, of, from, 'bounced', now, { answer: words, failure })
  followFailure(db, of.personId, failure, answer, now)
  return 'bounced'
}

function complained(db: Database, of: Addressed, now: number): string {
  const from = readRecipient(db, of)?.state
  if (from !== 'accepted' && from !== 'uncertain') return 'already known'
  moveRecipient(db, of, from, 'complained', now)
  suppress(db, of.personId, 'complained', 'Reported a mailing as spam.', now)
  unsubscribe(db, of, 'complaint', now)
  return 'complained'
}

/** By mail to the address in `List-Unsubscribe` (RFC 2369). */
function left(db: Database, of: Addressed, now: number): string {
  const state = unsubscribe(db, of, 'unsubscribe mail', now)
  if (state === 'unsubscribed') recordLeaving(db, of, now)
  return state === 'unsubscribed' ? 'unsubscribed' : 'already known'
}

function unsubscribe(db: Database, { mailingId, personId }: Addressed, way: string, now: number) {
  const listId = mailingById(db, mailingId)?.list_id
  if (!listId) return null
  const by = { act: 'person' as const, way, ref: String(mailingId) }
  return changeSubscription(db, personId, listId, 'unsubscribed', by, now)
}
