import { planProblems, type PlanAnswer } from '~~/core/dispatch'
import { linkAddresses, usualRates } from '~~/database/results'
import {
  countsOfPart,
  decisionDue,
  partsOfMailing,
  planOf,
  planVersion,
  senderOf,
  zoneFields,
  draftsBesides,
} from '~~/database/mailings'
import { readSegments } from '~~/database/segments'
import { commonDomains, eventNames } from '~~/database/people'

export default defineEventHandler((event): PlanAnswer => {
  const { db, clock } = satchel()
  const mailing = mailingOf(event)
  const plan = planOf(mailing)
  return {
    plan,
    sender: senderOf(db, null),
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
