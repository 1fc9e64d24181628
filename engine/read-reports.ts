import { readToken } from '../core/delivery'
import { readAccount } from '../database/account'
import { mailingById } from '../database/mailings'
import { moveRecipient, readRecipient, reportRead, unreadReports } from '../database/sending'
import { changeSubscription, suppress } from '../database/people'
import { transact, type Database } from '../database'
import type { Engine, Work } from './engine'

/** Reads bounces and complaints that came in, and does what follows from them. */
export const readReports: Work = async (engine) => {
  const { db } = engine
  const reports = unreadReports(db, 50)
  for (const { id, raw } of reports) {
    const { outcome, personId } = await takeReport(engine, raw)
    reportRead(db, id, outcome, personId)
  }
  return reports.length > 0
}

/** What came of a report, and whom it is about. */
interface Taken {
  outcome: string
  personId: number | null
}
const about = (outcome: string, personId: number | null = null): Taken => ({ outcome, personId })

async function takeReport({ db, clock, log, readReport }: Engine, raw: string): Promise<Taken> {
  const report = await readReport(raw).catch((error: Error) => {
    log.error({ error: error.message }, 'a report can’t be read')
    return null
  })
  const account = readAccount(db)
  const by = {
    key: Buffer.from(account?.token_key ?? '', 'hex'),
    shortUpTo: account?.short_tokens_up_to ?? -1,
  }
  if (!report) return about('not understood')
  const of =
    report.kind === 'complaint'
      ? readToken(by, 'message', report.messageToken)
      : readToken(by, 'bounce', report.bounceToken)
  if (!of) return about('not ours')
  if (report.kind === 'delayed') return about('delayed', of.personId)
  const now = clock()
  const outcome = transact(db, () =>
    report.kind === 'complaint'
      ? complained(db, of.mailingId, of.personId, now)
      : bounced(db, of.mailingId, of.personId, report, now),
  )
  return about(outcome, of.personId)
}

function bounced(
  db: Database,
  mailingId: number,
  personId: number,
  report: { deadAddress: boolean; words: string; answer: string },
  now: number,
): string {
  const recipient = readRecipient(db, mailingId, personId)
  const from = recipient?.state
  if (from !== 'accepted' && from !== 'uncertain') return 'already known'
  moveRecipient(db, mailingId, personId, from, 'bounced', now, { answer: report.words })
  if (report.deadAddress) suppress(db, personId, 'bounced', report.answer || report.words, now)
  return 'bounced'
}

function complained(db: Database, mailingId: number, personId: number, now: number): string {
  const recipient = readRecipient(db, mailingId, personId)
  const from = recipient?.state
  if (from !== 'accepted' && from !== 'uncertain') return 'already known'
  moveRecipient(db, mailingId, personId, from, 'complained', now)
  suppress(db, personId, 'complained', 'Reported a mailing as spam.', now)
  const listId = mailingById(db, mailingId)?.list_id
  if (listId)
    changeSubscription(
      db,
      personId,
      listId,
      'unsubscribed',
      { act: 'person', way: 'complaint', ref: String(mailingId) },
      now,
    )
  return 'complained'
}
