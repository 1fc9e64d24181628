import { judgeTest } from '~~/core/sign-ups'
import { DAY } from '~~/core/time'
import {
  endedTests,
  keptAway,
  resultSlices,
  runningTest,
  signUpCounts,
  signUpSlices,
  versionCounts,
  type ResultSlice,
} from '~~/database/sign-ups'

/** What came of a sign-up in the last days: the whole, and by what sets its visitors apart; and what was kept away. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const { id } = signUpOf(event)
  const query = getQuery(event)
  const days = [7, 30, 90, 365].find((one) => String(one) === query.days) ?? 90
  const by: ResultSlice = resultSlices.find((one) => one === query.by) ?? 'version'
  const now = clock()
  const since = now - days * DAY
  const test = runningTest(db, id)
  const judged = (versions: readonly number[], since: number, until: number) => ({
    judged: judgeTest(versionCounts(db, id, versions, { since, until })),
  })
  return {
    ...{ days, by, since, counts: signUpCounts(db, id, since, now) },
    slices: signUpSlices(db, id, by, since, now),
    kept: keptAway(db, id, now - 7 * DAY),
    test: test && { ...test, ...judged(test.versions, test.beganAt, now) },
    ended: endedTests(db, id).map((one) => ({
      ...one,
      ...judged(one.versions, one.beganAt, one.endedAt),
    })),
  }
})
