import { sql, type SqlBool } from 'kysely'
import { deviceOf, devices, programOf, programs, type Device, type Program } from '../../counting'
import { isWithin } from '../values/comparison'
import { sinceOf } from '../values/moments'
import { parseWithin } from '../values/parse'
import type { TokenReader } from '../values/token-reader'
import { writeWithin } from '../values/write'
import type { ConditionKind } from './kind'

/** On what, or in what, somebody opened a mailing first, as far as their mail program says. */
export interface ReadsOn {
  kind: 'reads'
  on: ReadingOn
  withinDays: number | null
}

export type ReadingOn = Exclude<Device | Program, 'unknown'>
export const readingOn: readonly ReadingOn[] = [...devices, ...programs].filter(
  (one) => one !== 'unknown',
)

const words: Record<ReadingOn, string> = {
  phone: 'on a phone',
  tablet: 'on a tablet',
  computer: 'on a computer',
  browser: 'in a browser',
  program: 'in a program',
}

const isDevice = (on: ReadingOn) => (devices as readonly string[]).includes(on)
const classOf = (on: ReadingOn) => (isDevice(on) ? deviceOf : programOf)

export const reads: ConditionKind<ReadsOn> = {
  read: ({ on, withinDays }) =>
    readingOn.includes(on as ReadingOn) && isWithin(withinDays)
      ? { kind: 'reads', on: on as ReadingOn, withinDays: withinDays ?? null }
      : null,
  ready: (of) => of,
  sql({ on, withinDays }, { now }) {
    const since = sinceOf(withinDays, now)
    const opened = since === null ? sql`r.opened_at is not null` : sql`r.opened_at >= ${since}`
    const found = sql.raw(isDevice(on) ? 'device_of' : 'program_of')
    return sql<SqlBool>`exists (select 1 from recipients r where r.person_id = facts.person_id and ${opened}
      and r.opened_on in (select g.id from agents g where ${found}(g.text) = ${on}))`
  },
  predicate({ on, withinDays }, { now }) {
    const since = sinceOf(withinDays, now)
    const found = classOf(on)
    return ({ mail }) =>
      mail.some(
        ({ openedAt, openedOn }) =>
          openedAt !== null &&
          (since === null || openedAt >= since) &&
          openedOn !== null &&
          found(openedOn) === on,
      )
  },
  fact({ on }, { mail }, { day }) {
    const found = classOf(on)
    const opened = mail.filter(({ openedAt }) => openedAt !== null)
    const last = opened.sort((a, b) => b.openedAt! - a.openedAt!)[0]
    if (!last) return 'opened nothing'
    const as = found(last.openedOn ?? '')
    return `last ${as === 'unknown' ? 'on what is not known' : words[as]}, ${day(last.openedAt!)}`
  },
  phrases: [{ begins: 'reads', read: parse }],
  write: ({ on, withinDays }) => `reads ${words[on]}${writeWithin(withinDays)}`,
  offers: () =>
    readingOn.map((on) => ({
      words: `Opened ${words[on]}`,
      also: 'reads device client mobile desktop webmail app mail program',
      of: { kind: 'reads', on, withinDays: 90 },
    })),
}

function parse(r: TokenReader): ReadsOn {
  for (const on of readingOn) {
    const said = words[on].split(' ')
    const short = [said[0]!, said[2]!]
    const found = [said, short].find((these) => r.areWords(...these))
    if (!found) continue
    r.next += found.length
    return { kind: 'reads', on, withinDays: parseWithin(r) }
  }
  throw r.fault(`One of these is needed here: ${Object.values(words).join(', ')}.`)
}
