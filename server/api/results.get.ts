import { shrinkRates, wilson } from '~~/core/results'
import {
  cohortsByMonth,
  growthByMonth,
  monthsUpTo,
  opensByHour,
  sentSince,
  sequenceMailByMonth,
} from '~~/database/results'
import { labelUses, readLabels } from '~~/database/labels'
import { DAY, dayOf } from '~~/core/time'

/** So many months are looked back. */
const MONTHS = 12
/** A mailing to fewer says nothing about its subject. */
const FEWEST = 50

/** Younger than this, a mailing is still being read. */
const STILL_READ = 2 * DAY

/** What came of all mailings of the last year, and of sequences' mail by when it was accepted. */
export default defineEventHandler(() => {
  const { db, clock } = satchel()
  const { zone } = account()
  const now = clock()
  const { months, since } = monthsUpTo(now, MONTHS, zone)
  const sent = sentSince(db, since)
  const monthOf = (at: number) => dayOf(at, zone).slice(0, 7)
  const large = sent.filter(
    ({ delivered, tested, started_at }) =>
      delivered >= FEWEST && !tested && started_at! <= now - STILL_READ,
  )
  const ofSequences = sequenceMailByMonth(db, since, months, zone)
  const rates = shrinkRates(large.map(({ opened, delivered }) => ({ hits: opened, of: delivered })))
  const uses = labelUses(db).filter(({ kind }) => kind === 'mailing')
  return {
    /** Mailings alone: of one with several labels under each. */
    labels: readLabels(db)
      .map(({ id, name }) => {
        const on = new Set(uses.filter((use) => use.labelId === id).map(({ itemId }) => itemId))
        const of = sent.filter((one) => on.has(one.id))
        const sum = (key: 'delivered' | 'opened' | 'clicked') =>
          of.reduce((total, one) => total + one[key], 0)
        const delivered = sum('delivered')
        return {
          ...{ id, name, mailings: of.length, delivered },
          opened: wilson(sum('opened'), delivered),
          clicked: wilson(sum('clicked'), delivered),
        }
      })
      .filter(({ mailings }) => mailings > 0),
    months: months.map((month, i) => {
      const of = sent.filter(({ started_at }) => monthOf(started_at!) === month)
      const sum = (key: 'delivered' | 'opened' | 'clicked') =>
        of.reduce((total, one) => total + one[key], ofSequences[i]![key])
      const delivered = sum('delivered')
      return {
        month,
        mailings: of.length,
        delivered,
        ofSequences: ofSequences[i]!.delivered,
        opened: wilson(sum('opened'), delivered),
        clicked: wilson(sum('clicked'), delivered),
      }
    }),
    growth: growthByMonth(db, since, months, zone),
    cohorts: cohortsByMonth(db, since, months, zone, now),
    hours: opensByHour(db, since, zone),
    subjects: large
      .map(({ id, name, subject, delivered }, i) => ({
        id,
        name,
        subject,
        delivered,
        ...rates[i]!,
      }))
      .sort((a, b) => b.rate - a.rate),
  }
})
