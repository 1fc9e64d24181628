import { addressed } from '../core/delivery'
import { judgeClick, judgeOpen } from '../core/results'
import { transact, type Database } from '../database'
import {
  applyVerdict,
  clicksOf,
  handOverActs,
  linkCount,
  unjudgedActs,
  type UnjudgedAct,
} from '../database/sending'
import { wakePerson } from '../database/sequences'
import type { Work } from './engine'

/** A click is judged only after this long, when a scanner's other clicks would be there too. */
const CLICK_SETTLES = 6_000

/** Judges what came in, in the order in which it came, and rolls it up. */
export const judgeActs: Work = ({ db, clock }) => {
  const acts = unjudgedActs(db, clock() - CLICK_SETTLES, 400)
  if (acts.length === 0) return false
  transact(db, () => {
    handOverActs(db, acts)
    const opened = new Map<string, number | null>()
    for (const act of acts) {
      const recipient = `${act.mailing_id}/${act.person_id}/${act.round}`
      const openedAt = opened.get(recipient) ?? act.opened_at
      const verdict =
        act.kind === 'open'
          ? judgeOpen({ at: act.at, acceptedAt: act.accepted_at, agent: act.agent })
          : clickVerdict(db, act, openedAt)
      if (verdict === 'human') opened.set(recipient, openedAt ?? act.at)
      applyVerdict(db, act, verdict)
      if (verdict === 'human') wakePerson(db, act.person_id, clock())
    }
  })
  return acts.length === 400
}

function clickVerdict(db: Database, act: UnjudgedAct, openedAt: number | null) {
  return judgeClick({
    method: act.method,
    at: act.at,
    clicks: clicksOf(db, addressed(act.mailing_id, act.person_id, act.round)),
    linksInLetter: linkCount(db, act.mailing_id),
    openedBefore: openedAt !== null && openedAt <= act.at,
  })
}
