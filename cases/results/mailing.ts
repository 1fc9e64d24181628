import { recipientsOf, totalOf } from '../../core/counting'
import type { Database } from '../../database'
import { testResults, worthResults } from './test'
import { fillHours, halfTime, leaveReasons, ratesOf, type Totals } from '../../core/results'
import { reasonsOfLeaving, listById } from '../../database/people'
import { totalsOf, type Mailing } from '../../database/mailings'
import { letterOf } from '../../database/letters'
import { contentOf, repliedCount, repliesTo } from '../../database/sending'
import {
  earlierTotals,
  hoursOf,
  linkClicks,
  reasonsOf,
  sequenceMails,
} from '../../database/results'
import { sequenceById } from '../../database/sequences'

/** What came of a mailing so far; `results` null before it has begun. */
export function mailingResults(db: Database, mailing: Mailing, now: number) {
  const list = mailing.list_id === null ? undefined : listById(db, mailing.list_id)
  const base = {
    mailing: { ...mailing, list: list?.name ?? null, sequence: sequenceOf(db, mailing) },
    subject: letterOf(db, mailing.letter_id).subject,
  }
  const row = totalsOf(db, mailing.id)
  if (!row) return { ...base, results: null }
  const totals = totalsFrom(row)
  const hours = hoursOf(db, mailing.id)
  return {
    ...base,
    results: {
      totals,
      states: row,
      rates: ratesOf(totals),
      hours: fillHours(hours, 48),
      later: hours.filter(({ hour }) => hour >= 48).reduce((sum, { opens }) => sum + opens, 0),
      halfTime: halfTime(hours),
      links: linkClicks(db, mailing.id),
      test: testResults(db, mailing, now),
      worth: worthResults(db, mailing, now),
      reasons: reasonsOf(db, mailing.id),
      leaving: leaving(db, mailing.id, totals.left),
      replied: replied(db, mailing.id),
      ...earlier(db, mailing, now),
    },
  }
}

function sequenceOf(db: Database, { sequence_id }: Mailing) {
  const sequence = sequence_id === null ? undefined : sequenceById(db, sequence_id)
  return sequence ? { id: sequence.id, name: sequence.name } : null
}

/** So many others stand beside a mailing. */
const OTHERS = 12

/**
 * What a mailing is compared with: the last ones to its list at the age it has now, in ms; a sequence's mail, which begins
 * anew with everybody, with other mail of sequences, its own first.
 */
function earlier(db: Database, mailing: Mailing, now: number) {
  const own = mailing.sequence_id
  const age = own === null && mailing.started_at !== null ? now - mailing.started_at : null
  const others =
    own === null
      ? earlierTotals(db, mailing, OTHERS, age)
      : sequenceMails(db)
          .filter(({ id, delivered }) => id !== mailing.id && delivered > 0)
          .sort((a, b) => Number(b.sequence_id === own) - Number(a.sequence_id === own))
          .slice(0, OTHERS)
  return {
    age,
    earlier: others.map((one) => {
      const share = (n: number) => n / Math.max(1, totalOf(one, 'delivered'))
      return {
        id: one.id,
        name: one.name,
        opened: share(one.opened),
        clicked: share(one.clicked),
        left: share(one.left_list),
      }
    }),
  }
}

function totalsFrom(row: NonNullable<ReturnType<typeof totalsOf>>): Totals {
  const { accepted, bounced, complained, failed, dropped, uncertain, opened, clicked } = row
  return {
    recipients: recipientsOf(row),
    waiting: totalOf(row, 'waiting'),
    accepted,
    bounced,
    complained,
    failed,
    dropped,
    uncertain,
    opened,
    clicked,
    left: row.left_list,
    machineOpened: row.machine_opened,
    scannerClicked: row.scanner_clicked,
  }
}

/** So many replies stand on the page; all of somebody's stand with them. */
const SHOWN = 20

/** Who wrote back, and what; `measured`: whether replies came here, or went past us. */
function replied(db: Database, mailingId: number) {
  const people = repliedCount(db, mailingId)
  return {
    measured: people > 0 || contentOf(db, mailingId)?.replies === 'kept',
    people,
    newest: repliesTo(db, mailingId, SHOWN),
  }
}

function leaving(db: Database, mailingId: number, left: number) {
  const said = reasonsOfLeaving(db, mailingId)
  return {
    reasons: said.map(({ reason, n }) => ({
      name: leaveReasons.find(({ key }) => key === reason)!.name,
      n,
    })),
    silent: left - said.reduce((sum, { n }) => sum + n, 0),
  }
}
