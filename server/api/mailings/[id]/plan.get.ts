import { planProblems, type DispatchPlan, type PartKind } from '~~/core/dispatch'
import { linkAddresses, usualRates } from '~~/database/results'
import {
  countsOfPart,
  decisionDue,
  partsOfMailing,
  planOf,
  planVersion,
  zoneFields,
  draftsBesides,
} from '~~/database/mailings'
import { readSegments } from '~~/database/segments'
import { commonDomains, eventNames } from '~~/database/people'

/** How a mailing goes out, what it needs for that, and how far its parts have come. */
export interface PlanAnswer {
  plan: DispatchPlan
  version: string
  problems: string[]
  /** Other letters that can be tried. */
  drafts: { id: number; name: string }[]
  events: string[]
  segments: { id: number; name: string }[]
  /** Fields that hold somebody's time zone, with how many have one, the most first. */
  zoneFields: { key: string; name: string; people: number }[]
  /** The mailbox providers of most people. */
  domains: string[]
  /** Where the letter leads. */
  links: string[]
  /** What earlier mailings of the list came to; null where there were none. */
  usual: { opened: number; clicked: number; mailings: number } | null
  parts: { kind: PartKind; begunAt: number | null; tried: number; waiting: number }[]
  winner: number | null
  decidedAt: number | null
  decidedBy: string | null
  /** When the test decides by itself, as far as that is known: once all of its part have gone. */
  decidesAt: number | null
}

export default defineEventHandler((event): PlanAnswer => {
  const { db, clock } = satchel()
  const mailing = mailingOf(event)
  const plan = planOf(mailing)
  return {
    plan,
    version: planVersion(mailing),
    problems: planProblems(plan),
    drafts: draftsBesides(db, mailing.id),
    events: eventNames(db),
    segments: readSegments(db).map(({ id, name }) => ({ id, name })),
    zoneFields: zoneFields(db),
    domains: commonDomains(db).map(({ domain }) => domain),
    links: linkAddresses(db, mailing),
    usual: usualRates(db, mailing),
    parts: partsOfMailing(db, mailing.id).map(({ kind, begun_at, no }) => {
      const { tried, waiting } = countsOfPart(db, mailing.id, no)
      return { kind, begunAt: begun_at, tried, waiting }
    }),
    winner: mailing.winner,
    decidedAt: mailing.decided_at,
    decidedBy: mailing.decided_by,
    decidesAt: decisionDue(db, mailing, clock()),
  }
})
