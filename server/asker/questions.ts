import { peopleTable, type AskedTable } from '../../cases/people'
import { sequenceResults } from '../../cases/sequences'
import type { Database } from '../../database'
import { askSql, peopleOfSql, SqlFault, type SqlAnswer } from '../../database/exports'
import {
  countValues,
  idsOfPeople,
  previewRetyping,
  readFields,
  pulsesOf,
  valuesOf,
  commonValues,
  findValues,
} from '../../database/people'
import {
  compareSegments,
  pastSizes,
  countLines,
  membersPage,
  sharedWithMembers,
  countSeveral,
  readCatalog,
  readSegments,
  choiceOnce,
  type TableChoice,
} from '../../database/segments'
import {
  otherMailOf,
  audienceOf,
  mailingById,
  fingerprintOf,
  happeningOf,
  countTruths,
} from '../../database/mailings'
import { messagesOf } from '../../database/results'
import { isOneOf, roundsBehind, sequenceById } from '../../database/sequences'
import { sheetDays, sequencesOnSheet } from '../../cases/today'
import { SHEET_SEQUENCES, type MessagesAsked } from '../../core/results'
import { readAccount } from '../../database/account'
import { closeMail, loadByDay, sequenceDays } from '../../database/calendar'
import { ownWords, wholeLetterOf } from '../../database/letters'
import { nameOf, type FieldKind } from '../../core/people'
import { conditionsOf, renditionsOf } from '../../core/letters'
import { textsOf } from '../../core/proof'
import type { RoundsAsked, Which } from '../../core/sequences'
import { misspelt } from '../../core/spelling'
import type { Day } from '../../core/time'
import { writeRule, type Rule } from '../../core/segments'

const PAGE = 50
const dataFolder = process.env.SATCHEL_DATA!

/**
 * What the asker can be asked. Each may take long, which is why none is asked in the web process.
 * Questions and answers cross the border of a process, so they are plain JSON.
 */
export const questions = {
  /** A rule while it is edited: each line's count, some of the people, what it shares with saved segments. */
  segment(
    db: Database,
    { rule, now, segmentId }: { rule: Rule; now: number; segmentId: number | null },
  ) {
    const began = performance.now()
    const counts = countLines(db, rule, now)
    const ms = Math.round(performance.now() - began)
    return { ...counts, ms, people: shownPeople(db, 0), shared: sharedWith(db, segmentId, now) }
  },

  /** More of a rule's people. */
  members(db: Database, { rule, now, offset }: { rule: Rule; now: number; offset: number }) {
    countLines(db, rule, now)
    return shownPeople(db, offset)
  },

  /** A page of the table of people, of which some segment is asked for. */
  people(db: Database, { asked, now }: { asked: AskedTable; now: number }) {
    return peopleTable(db, asked, now)
  },

  /** The ids of everybody such a table shows. */
  peopleIds(db: Database, { choice, now }: { choice: TableChoice; now: number }) {
    return idsOfPeople(db, choiceOnce(db, choice, now))
  },

  /** What a rule's size was over the last weeks, reckoned from some people. */
  pastSizes(db: Database, { rule, now }: { rule: Rule; now: number }) {
    return pastSizes(db, rule, now)
  },

  /** The versions of a mailing's letter that go out, and how many each of its rules keeps. */
  renditions(db: Database, { mailingId, now }: { mailingId: number; now: number }) {
    const mailing = mailingById(db, mailingId)!
    const { document } = wholeLetterOf(db, mailing.letter_id)
    const audience = audienceOf(db, mailing)
    const conditions = conditionsOf(document)
    const counts = audience ? countTruths(db, audience, conditions.rules, now) : []
    const catalog = readCatalog(db)
    return {
      audience: counts.reduce((sum, { people }) => sum + people, 0),
      rules: conditions.rules.map((rule, n) => ({
        rule,
        words: writeRule(rule, catalog),
        people: counts
          .filter(({ truth }) => Math.floor(truth / 2 ** n) % 2 === 1)
          .reduce((sum, { people }) => sum + people, 0),
      })),
      renditions: renditionsOf(document, counts, conditions),
    }
  },

  /** What the proof says besides: words that no dictionary knows, and the other mail of the audience. */
  proof(db: Database, { mailingId, now }: { mailingId: number; now: number }) {
    const mailing = mailingById(db, mailingId)!
    const texts = textsOf(wholeLetterOf(db, mailing.letter_id)).map(({ text }) => text)
    return {
      misspelt: misspelt(texts, ownWords(db)),
      people: otherMailOf(db, mailing, now),
    }
  },

  /** What came of a sequence, or of some of its rounds, of which each is looked at. */
  sequenceResults(
    db: Database,
    {
      sequenceId,
      days,
      which,
      now,
    }: { sequenceId: number; days: number; which: Which; now: number },
  ) {
    return sequenceResults(db, sequenceById(db, sequenceId)!, { days, which }, now)
  },

  /** What would happen were a mailing sent off at a time, or (null) now; null while it has no list. */
  happening(
    db: Database,
    { mailingId, at, now }: { mailingId: number; at: number | null; now: number },
  ) {
    const mailing = mailingById(db, mailingId)!
    const happening = happeningOf(db, mailing, at, now)
    return happening && { happening, fingerprint: fingerprintOf(db, mailing, at, happening.mailed) }
  },

  /** How much mail each day brings to how many people. */
  load(db: Database, { from, to, now }: { from: Day; to: Day; now: number }) {
    return loadByDay(db, from, to, now)
  },

  /** A mailing's messages one by one. */
  messages(db: Database, { mailingId, asked }: { mailingId: number; asked: MessagesAsked }) {
    return messagesOf(db, mailingId, asked)
  },

  /** The rounds behind a figure of a sequence's results, of those that are looked at. */
  rounds(
    db: Database,
    {
      sequenceId,
      asked,
      which,
      now,
    }: { sequenceId: number; asked: RoundsAsked; which: Which; now: number },
  ) {
    return roundsBehind(db, sequenceId, asked, isOneOf(db, which, now))
  },

  /** Who is inside a sequence and gets other mail within a day of its own. */
  closeMail(db: Database, { sequenceId, now }: { sequenceId: number; now: number }) {
    return closeMail(db, sequenceId, now)
  },

  /** The mail of the sequences that the run sheet shows, by its days. */
  sequenceDays(db: Database, { now }: { now: number }) {
    const ids = sequencesOnSheet(db).map(({ id }) => id)
    const { zone } = readAccount(db)!
    return sequenceDays(db, ids.slice(0, SHEET_SEQUENCES), sheetDays(now, zone), now)
  },

  /** How many people each of some rules keeps. */
  sizes(db: Database, { rules, now }: { rules: Rule[]; now: number }) {
    return countSeveral(db, rules, now)
  },

  /** Everybody, split by which of some segments they are in. */
  compare(db: Database, { ids, now }: { ids: number[]; now: number }) {
    return compareSegments(db, ids, now)
  },

  /** A query of the user's own, over the documented views. What is wrong with it comes back in words. */
  sql(db: Database, { query }: { query: string }): SqlAnswer | { fault: string } {
    return faultInWords(() => askSql(dataFolder, readFields(db), query))
  },

  /** The people a query is about. */
  sqlPeople(db: Database, { query }: { query: string }): { ids: number[] } | { fault: string } {
    return faultInWords(() => ({ ids: peopleOfSql(dataFolder, readFields(db), query) }))
  },

  /** How many people have a value of each field. */
  fieldCounts(db: Database, _: object) {
    return Object.fromEntries(countValues(db))
  },

  /** What would come of a field's values if it were of another kind. */
  retyping(db: Database, { key, kind }: { key: string; kind: FieldKind }) {
    return previewRetyping(db, key, kind)
  },

  /** Values of fields that have a text in them, the most common first. */
  valuesFound(db: Database, { text, now }: { text: string; now: number }) {
    return findValues(db, text, now)
  },

  /** The values people have most often for a field, with how many have them. */
  values(db: Database, { key }: { key: string }) {
    return commonValues(db, key)
  },
}
export type Questions = typeof questions
export type Question = {
  [K in keyof Questions]: { ask: K; of: Parameters<Questions[K]>[1] }
}[keyof Questions]
export type SegmentAnswer = ReturnType<Questions['segment']>
export type CalendarLoad = ReturnType<Questions['load']>
export type Renditions = ReturnType<Questions['renditions']>
export type PastSizes = ReturnType<Questions['pastSizes']>

function faultInWords<T>(ask: () => T): T | { fault: string } {
  try {
    return ask()
  } catch (error) {
    if (error instanceof SqlFault) return { fault: error.message }
    throw error
  }
}

function shownPeople(db: Database, offset: number) {
  const rows = membersPage(db, PAGE, offset)
  const pulses = pulsesOf(
    db,
    rows.map(({ id }) => id),
  )
  return rows.map((row) => ({
    id: row.id,
    address: row.address,
    name: nameOf(row),
    values: valuesOf(row),
    orders: row.orders,
    spent: row.spent,
    pulse: pulses.get(row.id)!,
  }))
}

/** How many of the members are in other saved segments, too; the largest share first. */
function sharedWith(db: Database, segmentId: number | null, now: number) {
  return readSegments(db)
    .filter(({ id }) => id !== segmentId)
    .slice(0, 12)
    .map(({ id, name }) => ({
      id,
      name,
      n: sharedWithMembers(db, { kind: 'segment', segmentId: id }, now),
    }))
    .sort((a, b) => b.n - a.n)
}
