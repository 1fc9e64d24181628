import { sql } from 'kysely'
import { closeDatabase, openDatabase, all, raw } from '../database'
import {
  moneyOfMailing,
  earlierTotals,
  hoursOf,
  linkClicks,
  reasonsOf,
  resultsBy,
} from '../database/results'
import { reasonsOfLeaving } from '../database/people'
import { mailingById, totalsOf } from '../database/mailings'
import { bigMailingFolder } from './big-mailing'
import type { Measure } from './harness'

const ID = 1

/**
 * All that the results page of a mailing to a million people asks, with two million events, against counting the same totals
 * and hours from the raw rows.
 */
export const resultsPage: Measure = {
  name: 'results',
  unit: 'ms',
  promise: { atLeast: 100 },
  faster: true,
  runs: 3,
  run() {
    const db = openDatabase(bigMailingFolder(), { reading: true })
    const mailing = mailingById(db, ID)!
    const notes: Record<string, number> = {}
    const timed = <T>(name: string, work: () => T): T => {
      const began = performance.now()
      const found = work()
      notes[name] = performance.now() - began
      return found
    }
    const totals = timed('totals', () => totalsOf(db, ID)!)
    timed('hours', () => hoursOf(db, ID))
    timed('links', () => linkClicks(db, ID))
    timed('reasons', () => reasonsOf(db, ID))
    timed('leaving', () => reasonsOfLeaving(db, ID))
    timed('earlier', () => earlierTotals(db, mailing, 12, null))
    timed('money', () => moneyOfMailing(db, ID))
    timed('provider', () => resultsBy(db, ID, 'provider', Date.UTC(2026, 10, 23)))
    const ours = Object.values(notes).reduce((sum, ms) => sum + ms, 0)
    // The same totals and hours from the rows themselves.
    const began = performance.now()
    const counted = all(
      db,
      raw(sql<{ opened: number; clicked: number }>`
        select count(opened_at) as opened, count(clicked_at) as clicked from recipients where mailing_id = ${ID}`),
    )[0]!
    all(
      db,
      raw(sql`select kind, verdict, (at - ${mailing.started_at}) / 3600000 as hour, count(*), count(distinct person_id)
        from acts where mailing_id = ${ID} group by 1, 2, 3`),
    )
    notes.raw = performance.now() - began
    if (counted.opened !== totals.opened || counted.clicked !== totals.clicked)
      throw new Error('The totals are not those of the rows.')
    closeDatabase(db)
    return Promise.resolve({ ours, reference: notes.raw, notes })
  },
}
