import { startOfDay, addDays, type Day } from '../../core/time'
import { readAccount } from '../account'
import { mailingsWithTotals, type MailingWithTotals } from '../mailings'
import type { Database } from '../query'

/** What goes out, or went, within some days. */
export function mailingsBetween(db: Database, from: Day, to: Day): MailingWithTotals[] {
  const zone = readAccount(db)?.zone ?? 'UTC'
  const end = addDays(startOfDay(to, zone), 1, zone) - 1
  return mailingsWithTotals(db, { from: startOfDay(from, zone), to: end })
    .filter(({ state }) => state !== 'draft')
    .toSorted((a, b) => timeOf(a) - timeOf(b))
}

/** When a mailing goes out, or began to. */
export function timeOf(mailing: Pick<MailingWithTotals, 'started_at' | 'scheduled_at'>): number {
  return mailing.started_at ?? mailing.scheduled_at!
}
