import type { TodaySheet } from '../../core/results'
import type { Database } from '../../database'
import { readAccount } from '../../database/account'
import { proofMailing } from '../mailings'
import { addDays, dayOf, dayStart, DAY, type Day } from '../../core/time'
import { recipientsOf, STANDING_WEEK, totalOf } from '../../core/counting'
import { standingRates } from '../../core/standing'
import { blockersOf } from '../../core/proof'
import { recentImports } from '../../database/imports'
import { audienceOf, mailingsWithTotals, type MailingWithTotals } from '../../database/mailings'
import { countAudience } from '../../database/segments'
import { countPeople, tasksToDo } from '../../database/people'
import { readSequences } from '../../database/sequences'
import { readSignUps } from '../../database/sign-ups'
import { growthByDay, providersSince, uncertainMailings } from '../../database/results'

/** The days that the run sheet shows: fourteen back, today, and thirteen ahead. */
export function sheetDays(now: number, zone: string): { from: Day; to: Day } {
  const today = dayStart(now, zone)
  return { from: dayOf(addDays(today, -14, zone), zone), to: dayOf(addDays(today, 13, zone), zone) }
}

/** Sequences that run or are paused, those with the most people inside first. */
export function sequencesOnSheet(db: Database): TodaySheet['sequences'] {
  return readSequences(db)
    .filter(({ state, archived_at }) => /^(running|paused)$/.test(state) && archived_at === null)
    .sort((a, b) => b.inside - a.inside)
    .map(({ id, name, state, inside }) => ({ id, name, state, inside }))
}

/** So many tasks stand on the sheet. */
const SHEET_TASKS = 5

/** The run sheet: fourteen days back and fourteen ahead, what waits for the user, the list and standing. */
export function runSheet(db: Database, now: number): TodaySheet {
  const { zone } = readAccount(db)!
  const today = dayStart(now, zone)
  const from = addDays(today, -14, zone)
  const to = addDays(today, 14, zone)
  const mailings = mailingsWithTotals(db, { from, to })
  const held = mailingsWithTotals(db).filter((mailing) => mailing.state === 'held')
  const standing = providersSince(db, now - STANDING_WEEK)
    .filter((row) => row.recipients >= 20)
    .slice(0, 5)
    .map((row) => ({ ...row, rates: standingRates(row) }))
  const monthAgo = addDays(today, -29, zone)
  return {
    now,
    zone,
    from,
    to,
    mailings: mailings.map((mailing) => shown(mailing)),
    sequences: sequencesOnSheet(db),
    waiting: [
      ...held.map((mailing) => ({
        kind: 'held' as const,
        mailing: shown(mailing),
        by: mailing.held_by,
        note: mailing.held_note,
        blockers:
          mailing.held_by === 'proof'
            ? blockersOf(proofMailing(db, mailing, now)).map((mark) => mark.title)
            : [],
      })),
      ...mailings
        .filter((mailing) => mailing.waiting_note !== null && mailing.state === 'sending')
        .map((mailing) => ({
          kind: 'stuck' as const,
          mailing: shown(mailing),
          note: mailing.waiting_note,
        })),
      ...standing
        .filter((row) => row.rates.bounced.over)
        .map((row) => ({
          kind: 'bounces' as const,
          domain: row.domain,
          rate: row.rates.bounced.rate,
          bounced: row.bounced,
          tried: row.rates.bounced.of,
        })),
      ...uncertainMailings(db).map((mailing) => ({
        kind: 'uncertain' as const,
        mailing: { id: mailing.id, name: mailing.name },
        count: mailing.uncertain,
      })),
      ...readSignUps(db, now)
        .filter(({ toLook }) => toLook > 0)
        .map(({ id, name, toLook }) => ({ kind: 'sign-up' as const, id, name, toLook })),
      ...recentImports(db, 3)
        .filter((one) => one.refused > 0 && one.created_at > now - 3 * DAY)
        .map((one) => ({
          kind: 'import' as const,
          id: one.id,
          name: one.file_name,
          refused: one.refused,
          rows: one.rows,
        })),
    ],
    tasks: { ...tasksToDo(db, dayOf(now, zone), SHEET_TASKS), today: dayOf(now, zone) },
    people: { count: countPeople(db), growth: growthByDay(db, monthAgo, DAY), days: 30 },
    standing,
  }

  function shown(mailing: MailingWithTotals) {
    const audience = mailing.started_at === null ? audienceOf(db, mailing) : null
    const recipients = audience
      ? countAudience(db, audience, now)
      : recipientsOf(mailing) - (mailing.dropped ?? 0) - (mailing.uncertain ?? 0)
    return {
      id: mailing.id,
      name: mailing.name,
      state: mailing.state,
      held_by: mailing.held_by,
      at: mailing.started_at ?? mailing.scheduled_at ?? mailing.created_at,
      recipients,
      delivered: totalOf(mailing, 'delivered'),
      opened: mailing.opened ?? 0,
      clicked: mailing.clicked ?? 0,
    }
  }
}
