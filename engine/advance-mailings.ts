import { countsSince, limitPassed, type PartCounts } from '../core/dispatch'
import { compareVariants } from '../core/experiments'
import { MINUTE } from '../core/time'
import type { Database } from '../database'
import { readAccount } from '../database/account'
import { decideTest, outcomesOf, variantCounts } from '../database/results'
import {
  noteGoalStarts,
  audienceOf,
  holdMailing,
  sendingMailings,
  wentOnAt,
  type Mailing,
  beginPart,
  countsOfPart,
  countsSoFar,
  decisionDue,
  partsOfMailing,
  planOf,
  type Part,
} from '../database/mailings'
import type { Engine, Work } from './engine'

/** Mailings that go out in parts: decides tests whose time has come, and begins the parts that may follow. */
export const advanceMailings: Work = async (engine) => {
  let advanced = false
  for (const mailing of sendingMailings(engine.db)) advanced = advance(engine, mailing) || advanced
  return advanced
}

/** When something comes next in a mailing that goes out in parts, as far as that hangs on time alone; null where not. */
export function nextAdvance(db: Database, now: number): number | null {
  const dues = sendingMailings(db).flatMap((mailing) => {
    const at = dueAt(db, mailing, now)
    return at === null ? [] : [at]
  })
  return dues.length ? Math.min(...dues) : null
}

function advance({ db, clock, log }: Engine, mailing: Mailing): boolean {
  const now = clock()
  const next = nextPart(db, mailing)
  if (!next) return false
  if (awaitsDecision(mailing, next)) {
    const due = dueAt(db, mailing, now)
    if (due === null || due > now) return false
    const { test, goal } = planOf(mailing)
    const compared = compareVariants(outcomesOf(variantCounts(db, mailing, goal), test!.measure))
    const by = compared.clear ? 'itself' : 'itself, without a clear winner'
    log.info(
      { mailing: mailing.id, winner: compared.leader, clear: compared.clear },
      'test decided',
    )
    return decideTest(db, mailing, compared.leader, by, now)
  }
  const passed = passedBefore(db, mailing, next)
  if (passed) {
    holdMailing(
      db,
      mailing.id,
      { held_by: 'line', held_note: `The ${tierOf(next)} tier waits: ${passed}` },
      now,
    )
    log.warn({ mailing: mailing.id }, 'stopped by a limit')
    return true
  }
  const due = dueAt(db, mailing, now)
  if (due === null || due > now) return false
  const many = beginPart(db, mailing, next, audienceOf(db, mailing)!, readAccount(db)!.zone, now)
  noteGoalStarts(db, mailing, next.no, now)
  log.info({ mailing: mailing.id, part: next.kind, recipients: many }, 'part begins')
  return many !== null
}

/** The first part that has not begun. */
function nextPart(db: Database, { id }: Mailing): Part | undefined {
  return partsOfMailing(db, id).find(({ begun_at }) => begun_at === null)
}

/** Whether the rest waits for the test. */
function awaitsDecision(mailing: Mailing, next: Part): boolean {
  return planOf(mailing).test !== null && mailing.winner === null && next.no > 0
}

/** When the next part may begin, or the test is to be decided; null where that hangs on something else. */
function dueAt(db: Database, mailing: Mailing, now: number): number | null {
  const parts = partsOfMailing(db, mailing.id)
  const next = parts.find(({ begun_at }) => begun_at === null)
  if (!next) return null
  if (awaitsDecision(mailing, next)) return decisionDue(db, mailing, now)
  const before = parts[next.no - 1]
  if (!before?.kind.startsWith('tier ')) return mailing.decided_at ?? mailing.started_at
  const { waiting, tried, latest } = countsOfPart(db, mailing.id, before.no)
  if (waiting > 0) return null
  // Where a tier had nobody there is nothing to watch.
  if (tried === 0) return before.begun_at
  // Who lets it go on after a stop lets the same tier go on, and it is watched as long as ever.
  const from = Math.max(latest ?? before.begun_at!, wentOnAt(db, mailing.id) ?? 0)
  return from + planOf(mailing).watchMinutes * MINUTE
}

/** Which limit the tiers before one passed since somebody looked last, in words; null where they passed none. */
function passedBefore(db: Database, mailing: Mailing, next: Part): string | null {
  if (!next.kind.startsWith('tier ')) return null
  const then =
    mailing.watched_from === null ? null : (JSON.parse(mailing.watched_from) as PartCounts)
  return limitPassed(countsSince(countsSoFar(db, mailing.id), then), planOf(mailing).limits)
}

function tierOf({ kind }: Part): string {
  return kind.replace('tier ', '')
}
