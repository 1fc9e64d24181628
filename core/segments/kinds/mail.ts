import { sql, type RawBuilder, type SqlBool } from 'kysely'
import { isCountedSql, isIn } from '../../counting'
import type { Names } from '../names'
import type { MailFact, PersonFacts } from '../person-facts'
import { isWithin } from '../values/comparison'
import { sinceOf, type Asked } from '../values/moments'
import { parseTimes, parseWithin } from '../values/parse'
import type { Truth } from '../values/sql'
import {
  allowsNone,
  isOnce,
  notOnce,
  once,
  readTimes,
  timesIs,
  timesSql,
  type Times,
} from '../values/times'
import type { TokenReader } from '../values/token-reader'
import { writeTimes, writeWithin } from '../values/write'
import type { ConditionKind, Offer } from './kind'
import {
  parseOfLast,
  parseWhich,
  readWhich,
  writeOfLast,
  writeWhich,
  type WhichMail,
} from './which-mail'

/** What came of mailings that somebody was sent. `withinDays` null: at any time up to now. */
export interface Mail {
  kind: 'mail'
  did: MailAct
  of: WhichMail
  times: Times
  withinDays: number | null
  /** Whether who was sent none of these mailings did not open or click; see {@link asksWhoWasSent}. */
  orUnsent?: true
}

/** `sent`: taken by the mail server; `delivered`: and not come back. */
export type MailAct = (typeof mailActs)[number]
export const mailActs = [
  'sent',
  'delivered',
  'opened',
  'clicked',
  'replied',
  'bounced',
  'complained',
  'left',
] as const

const verbs: Record<MailAct, string> = {
  sent: 'was sent',
  delivered: 'received',
  opened: 'opened',
  clicked: 'clicked',
  replied: 'replied to',
  bounced: 'bounced on',
  complained: 'complained about',
  left: 'unsubscribed by',
}

export const mail: ConditionKind<Mail> = {
  read(json) {
    const of = readWhich(json.of)
    const times = readTimes(json.times)
    return of && times && mailActs.includes(json.did as MailAct) && isWithin(json.withinDays)
      ? {
          kind: 'mail',
          did: json.did as MailAct,
          of,
          times,
          withinDays: json.withinDays ?? null,
          ...(json.orUnsent === true && { orUnsent: true as const }),
        }
      : null
  },
  ready(of, { mailings, sequences }) {
    if (of.of.which === 'sequence' && !sequences.has(of.of.id))
      return 'The sequence asked for here is gone.'
    return of.of.which !== 'mailing' || mailings.has(of.of.id)
      ? of
      : 'The mailing asked for here is gone.'
  },
  sql(of, asked) {
    const did = didSql(of, asked)
    return asksWhoWasSent(of)
      ? sql<SqlBool>`(${didSql({ ...of, did: 'sent', times: once }, asked)} and ${did})`
      : did
  },
  predicate(of, asked) {
    const count = counter(of, asked)
    if (!asksWhoWasSent(of)) return (person) => timesIs(count(person), of.times)
    const sent = counter({ ...of, did: 'sent' }, asked)
    return (person) => sent(person) > 0 && timesIs(count(person), of.times)
  },
  fact(of, person, { asked, day }) {
    const count = counter(of, asked)(person)
    if (asksWhoWasSent(of) && counter({ ...of, did: 'sent' }, asked)(person) === 0)
      return 'was sent none of them'
    const last = Math.max(...person.mail.map((one) => momentOf[of.did](one) ?? -Infinity))
    const ever = Number.isFinite(last)
      ? `; last ${verbs[of.did].replace('was ', '')} ${day(last)}`
      : ''
    return `${count} ${count === 1 ? 'mailing' : 'mailings'}${ever}`
  },
  phrases: [
    ...mailActs.map((did) => ({
      begins: verbs[did],
      read: (r: TokenReader, names: Names) => parse(r, names, did),
    })),
    // As it was called earlier.
    { begins: 'left by', read: (r, names) => parse(r, names, 'left') },
  ],
  write({ did, of, times, withinDays, orUnsent }, names) {
    const which =
      of.which === 'last'
        ? writeOfLast(times, of.n)
        : `${writeWhich(of, names)}${writeTimes(times)}`
    return `${verbs[did]} ${which}${writeWithin(withinDays)}${orUnsent ? ' or was sent none' : ''}`
  },
  offers: ({ sequences, mailings }) => [
    ...common,
    ...sequences.map(({ id, name }) => ({
      words: `Opened a mailing of sequence ${name}`,
      also: 'read automated',
      of: { ...asked('opened', null), of: { which: 'sequence', id } } as Mail,
    })),
    ...mailings.flatMap(({ id, name }) =>
      (['opened', 'clicked', 'sent'] as const).map((did) => ({
        words: `${{ opened: 'Opened', clicked: 'Clicked', sent: 'Was sent' }[did]} “${name}”`,
        also: 'mailing',
        of: { ...asked(did, null), of: { which: 'mailing', id, link: null } } as Mail,
        many: true as const,
      })),
    ),
  ],
  never: (of) => (isOnce(of.times) ? { ...of, times: notOnce } : null),
}

/**
 * Whether a condition holds only for somebody who was sent one of its mailings: who opened or clicked none of them can be
 * told only then. Where it says `orUnsent`, everybody else is in it too.
 */
export function asksWhoWasSent({
  did,
  times,
  orUnsent,
}: Pick<Mail, 'did' | 'times' | 'orUnsent'>): boolean {
  return mayBeUnsent(did) && allowsNone(times) && !orUnsent
}

const mayBeUnsent = (did: MailAct) => did === 'opened' || did === 'clicked'

const asked = (did: MailAct, withinDays: number | null, times = once): Mail => ({
  kind: 'mail',
  did,
  of: { which: 'any' },
  times,
  withinDays,
})
const ofLast = (times: Times): Mail => ({
  ...asked('opened', null, times),
  of: { which: 'last', n: 5 },
})

const common: Offer<Mail>[] = [
  {
    words: 'Opened a mailing lately',
    also: 'read reading active 90 days',
    of: asked('opened', 90),
  },
  {
    words: 'Clicked a mailing lately',
    also: 'link followed active 90 days',
    of: asked('clicked', 90),
  },
  {
    words: 'Opened several mailings',
    also: 'often times at least',
    of: asked('opened', 90, { is: 'at-least', n: 3 }),
  },
  {
    words: 'Never opened a mailing',
    also: 'not did not open unread inactive',
    of: asked('opened', null, notOnce),
  },
  { words: 'Was sent a mailing', also: 'got mailed received', of: asked('sent', 30) },
  { words: 'Received a mailing', also: 'delivered got', of: asked('delivered', 30) },
  { words: 'Replied to a mailing', also: 'answered wrote back', of: asked('replied', null) },
  { words: 'Bounced', also: 'came back refused', of: asked('bounced', 180) },
  { words: 'Complained', also: 'marked as spam', of: asked('complained', null) },
  { words: 'Unsubscribed by a mailing', also: 'left', of: asked('left', null) },
  { words: 'Opened one of the last mailings', also: 'last 5 recent', of: ofLast(once) },
  {
    words: 'Opened all of the last mailings',
    also: 'every last 5 recent',
    of: ofLast({ is: 'at-least', n: 5 }),
  },
  {
    words: 'Opened none of the last mailings',
    also: 'did not open unread last 5 recent inactive',
    of: ofLast(notOnce),
  },
  {
    words: 'Received most of the last mailings',
    also: 'delivered got at least of last 5 recent',
    of: { ...ofLast({ is: 'at-least', n: 3 }), did: 'delivered' },
  },
  {
    words: 'Opened a mailing of a sequence',
    also: 'automated read any sequence',
    of: { ...asked('opened', 90), of: { which: 'in-sequences' } },
  },
  {
    words: 'Opened a mailing outside sequences',
    also: 'single broadcast read apart',
    of: { ...asked('opened', 90), of: { which: 'apart' } },
  },
]

/** When a recipient did what is asked; null where they did not. */
const momentSql: Record<MailAct, RawBuilder<unknown>> = {
  sent: sql`r.accepted_at`,
  delivered: sql`case when ${isCountedSql('delivered')} then r.accepted_at end`,
  opened: sql`r.opened_at`,
  clicked: sql`r.clicked_at`,
  replied: sql`r.replied_at`,
  bounced: sql`case when ${isCountedSql('bounced')} then r.at end`,
  complained: sql`case when ${isCountedSql('complained')} then r.at end`,
  left: sql`r.left_at`,
}

const momentOf: Record<MailAct, (one: MailFact) => number | null> = {
  sent: (one) => one.acceptedAt,
  delivered: (one) => (isIn(one.state, 'delivered') ? one.acceptedAt : null),
  opened: (one) => one.openedAt,
  clicked: (one) => one.clickedAt,
  replied: (one) => one.repliedAt,
  bounced: (one) => (isIn(one.state, 'bounced') ? one.at : null),
  complained: (one) => (isIn(one.state, 'complained') ? one.at : null),
  left: (one) => one.leftAt,
}

/** What `facts` already has: how many mailings, and the last time. */
const summed: Partial<Record<MailAct, { count: RawBuilder<unknown>; last: RawBuilder<unknown> }>> =
  {
    sent: { count: sql`facts.sent`, last: sql`facts.last_sent_at` },
    // The plus keeps SQLite from the index: most rules keep many, and reading `facts` from end to end is faster.
    opened: { count: sql`facts.opened`, last: sql`+facts.last_opened_at` },
    clicked: { count: sql`facts.clicked`, last: sql`facts.last_clicked_at` },
  }

function didSql({ did, of, times, withinDays }: Mail, { now }: Asked): Truth {
  const since = sinceOf(withinDays, now)
  const sums = summed[did]
  if (of.which === 'any' && sums) {
    if (since === null) return timesSql(sums.count, times)
    // Whether it happened at all since then is known from the last time; only a higher number must be counted.
    const lately = sql<SqlBool>`coalesce(${sums.last} >= ${since}, 0)`
    if (isOnce(times)) return lately
    if (times.n === 0 && times.is !== 'at-least') return sql<SqlBool>`not ${lately}`
    if (times.is === 'at-least' && times.n > 0)
      return sql<SqlBool>`(${lately} and ${sums.count} >= ${times.n} and ${timesSql(counted(), times)})`
  }
  return timesSql(counted(), times)

  function counted(): RawBuilder<unknown> {
    const at = momentSql[did]
    const during = since === null ? sql`${at} is not null` : sql`${at} >= ${since}`
    const theirs = sql`recipients r where r.person_id = facts.person_id`
    switch (of.which) {
      case 'any':
        return sql`(select count(*) from ${theirs} and ${during})`
      case 'apart':
      case 'in-sequences': {
        const not = sql.raw(of.which === 'apart' ? '' : 'not ')
        return sql`(select count(*) from ${theirs} and ${during} and (select m.sequence_id from mailings m where m.id = r.mailing_id) is ${not}null)`
      }
      case 'mailing':
        return of.link !== null && did === 'clicked'
          ? sql`(select count(distinct a.mailing_id) from acts a where a.person_id = facts.person_id and a.mailing_id = ${of.id} and a.link = ${of.link} and a.kind = 'click' and a.verdict = 'human' and a.at >= ${since ?? -8.64e15})`
          : sql`(select count(*) from ${theirs} and r.mailing_id = ${of.id} and ${during})`
      case 'sequence':
        return sql`(select count(*) from mailings m join recipients r on r.mailing_id = m.id and r.person_id = facts.person_id where m.sequence_id = ${of.id} and ${during})`
      case 'last':
        return sql`(select count(*) from (select * from recipients l where l.person_id = facts.person_id and l.accepted_at is not null order by l.accepted_at desc, l.mailing_id desc limit ${of.n}) r where ${during})`
    }
  }
}

/** How many mailings the condition counts for a person. */
function counter({ did, of, withinDays }: Mail, { now }: Asked): (person: PersonFacts) => number {
  const since = sinceOf(withinDays, now)
  const counts = (one: MailFact) => {
    const at = momentOf[did](one)
    return at !== null && (since === null || at >= since)
  }
  const counted = (isMeant: (one: MailFact) => boolean) => (person: PersonFacts) =>
    person.mail.filter((one) => isMeant(one) && counts(one)).length
  switch (of.which) {
    case 'any':
      return counted(() => true)
    case 'apart':
      return counted((one) => one.sequenceId === null)
    case 'in-sequences':
      return counted((one) => one.sequenceId !== null)
    case 'mailing':
      return of.link !== null && did === 'clicked'
        ? ({ clicks }) => (clicks.some(isTheLink) ? 1 : 0)
        : counted((one) => one.mailingId === of.id)
    case 'sequence':
      return counted((one) => one.sequenceId === of.id)
    case 'last':
      return (person) => lastSent(person.mail, of.n).filter(counts).length
  }

  function isTheLink({ mailingId, link, at }: PersonFacts['clicks'][number]): boolean {
    return (
      of.which === 'mailing' &&
      mailingId === of.id &&
      link === of.link &&
      (since === null || at >= since)
    )
  }
}

function lastSent(theirs: readonly MailFact[], n: number): MailFact[] {
  return theirs
    .filter(({ acceptedAt }) => acceptedAt !== null)
    .sort((a, b) => b.acceptedAt! - a.acceptedAt! || b.mailingId - a.mailingId)
    .slice(0, n)
}

function parse(r: TokenReader, names: Names, did: MailAct): Mail {
  const last = parseOfLast(r)
  const of = last?.of ?? parseWhich(r, names)
  const times = last?.times ?? parseTimes(r)
  const found: Mail = { kind: 'mail', did, of, times, withinDays: parseWithin(r) }
  if (!mayBeUnsent(did) || !allowsNone(times) || !r.areWords('or', 'was', 'sent', 'none'))
    return found
  r.next += 4
  return { ...found, orUnsent: true }
}
