import { enrolmentsOf } from './in-sequences'
import { personDetails, valuesOf } from './people'
import { tasksOf } from './tasks'
import { all, q, type Database } from '../query'
import { ownChangesOf, ownLimitsOf, requestsOf } from '../readers'
import { repliesOf, reportsAbout } from '../sending'
import { sendingsOf } from '../sign-ups'

/** Everything on file about a person, in plain words and times, to be given out; null where there is nobody. */
export function everythingKnown(db: Database, id: number) {
  const details = personDetails(db, id)
  if (!details) return null
  const { person, subscriptions, tags, suppressed } = details
  const limits = ownLimitsOf(db, id)
  const time = (at: number | null) => (at === null ? null : new Date(at).toISOString())
  return {
    address: person.address,
    on_file_since: time(person.joined_at),
    values: valuesOf(person),
    tags,
    subscriptions: subscriptions.map(({ name, state, since }) => ({
      list: name,
      state,
      since: time(since),
    })),
    evidence: all(
      db,
      q
        .selectFrom('evidence')
        .innerJoin('lists', 'lists.id', 'evidence.list_id')
        .leftJoin('wordings', 'wordings.id', 'evidence.wording_id')
        .select([
          'evidence.at',
          'evidence.state',
          'evidence.way',
          'evidence.ip',
          'evidence.agent',
          'lists.name as list',
          'wordings.text as wording',
        ])
        .where('person_id', '=', id)
        .orderBy('evidence.id'),
    ).map((row) => ({ ...row, at: time(row.at) })),
    sequences: enrolmentsOf(db, id).map(({ name, round, state, why, entered_at, ended_at }) => ({
      which_time: round + 1,
      name,
      state,
      why,
      entered: time(entered_at),
      ended: time(ended_at),
    })),
    handed_over: all(
      db,
      q
        .selectFrom('hand_overs')
        .select(['at', 'url', 'body', 'taken', 'said', 'answer'])
        .where('person_id', '=', id)
        .orderBy('id'),
    ).map(({ at, url, body, taken, said, answer }) => ({
      ...{ at: time(at), to: url, told: JSON.parse(body) as unknown },
      ...{
        taken: taken === null ? null : taken === 1,
        said,
        answer: JSON.parse(answer) as unknown,
      },
    })),
    set_aside: suppressed && { ...suppressed, at: time(suppressed.at) },
    own_limits: {
      paused_until: time(limits.pausedUntil),
      one_mailing_in_days: limits.oneInDays,
    },
    changed_by_themselves: ownChangesOf(db, id).map((row) => ({ ...row, at: time(row.at) })),
    asked_by_mail: requestsOf(db, id).map(({ kind, sent_to, asked_at, used_at }) => ({
      ...{ kind, sent_to },
      at: time(asked_at),
      confirmed: time(used_at),
    })),
    sign_ups: sendingsOf(db, id).map((row) => ({
      ...{ form: row.name, version: row.version, language: row.language, page: row.page },
      ...{ entered: JSON.parse(row.given) as unknown, source: JSON.parse(row.source) as unknown },
      ...{ state: row.state, ip: row.ip, agent: row.agent },
      at: time(row.at),
      confirmed: time(row.ended_at),
    })),
    mailings: all(
      db,
      q
        .selectFrom('recipients')
        .innerJoin('mailings', 'mailings.id', 'recipients.mailing_id')
        .leftJoin('leave_reasons as w', (join) =>
          join
            .onRef('w.mailing_id', '=', 'recipients.mailing_id')
            .onRef('w.person_id', '=', 'recipients.person_id')
            .onRef('w.round', '=', 'recipients.round'),
        )
        .select(['w.reason', 'w.words'])
        .select([
          'mailings.name',
          'recipients.state',
          'recipients.at',
          'opened_at',
          'clicked_at',
          'left_at',
        ])
        .where('recipients.person_id', '=', id)
        .orderBy('mailings.id'),
    ).map((row) => ({
      name: row.name,
      state: row.state,
      at: time(row.at),
      opened: time(row.opened_at),
      clicked: time(row.clicked_at),
      left: time(row.left_at),
      said_why: row.reason && { reason: row.reason, words: row.words },
    })),
    orders: all(
      db,
      q.selectFrom('orders').select(['number', 'at', 'money']).where('person_id', '=', id),
    ).map((row) => ({ ...row, at: time(row.at) })),
    events: all(
      db,
      q.selectFrom('events').select(['name', 'at', 'props']).where('person_id', '=', id),
    ).map(({ name, at, props }) => ({
      name,
      at: time(at),
      properties: JSON.parse(props) as unknown,
    })),
    replies: repliesOf(db, id).map((row) => ({
      at: time(row.at),
      from: row.from_address,
      subject: row.subject,
      text: row.text,
    })),
    reports: reportsAbout(db, id).map((row) => ({ ...row, at: time(row.at) })),
    notes: all(
      db,
      q.selectFrom('notes').select(['at', 'by_name', 'text']).where('person_id', '=', id),
    ).map((row) => ({ ...row, at: time(row.at) })),
    tasks: tasksOf(db, id).map(({ text, due, by, at, done }) => ({
      ...{ text, due, by, at: time(at), done: done && time(done.at) },
    })),
  }
}
