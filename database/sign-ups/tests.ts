import { sql } from 'kysely'
import { MOST_TESTED, type FormTest } from '../../core/sign-ups'
import { all, one, preparedOnce, q, raw, run, transact, type Database } from '../query'

export interface RunningTest extends FormTest {
  beganAt: number
}

/** The test of a form that runs now; null where none does. */
export function runningTest(db: Database, signUpId: number): RunningTest | null {
  const row = nowRunning(db).one({ signUp: signUpId })
  return row
    ? { id: row.id, versions: JSON.parse(row.versions) as number[], beganAt: row.began_at }
    : null
}

const nowRunning = preparedOnce<
  { signUp: number },
  { id: number; versions: string; began_at: number }
>((value) =>
  q
    .selectFrom('sign_up_tests')
    .select(['id', 'versions', 'began_at'])
    .where('sign_up_id', '=', value('signUp'))
    .where('ended_at', 'is', null),
)

/**
 * Puts a version beside the one that stands, or beside those of the test that runs, which begins anew with it: what was
 * counted before had other chances. False where there are as many as a test may have.
 */
export function testVersion(db: Database, signUpId: number, version: number, now: number): boolean {
  return transact(db, () => {
    const running = runningTest(db, signUpId)
    const live = one(db, q.selectFrom('sign_ups').select('live_version').where('id', '=', signUpId))
    const before = running?.versions ?? [live!.live_version!]
    if (before.length >= MOST_TESTED) return false
    if (running) endTest(db, signUpId, null, now)
    const versions = JSON.stringify([...before, version])
    run(db, q.insertInto('sign_up_tests').values({ sign_up_id: signUpId, versions, began_at: now }))
    return true
  })
}

/** Ends the test that runs; `keep` stands from now on, null: what stood. Whether one ran that has such a version. */
export function endTest(db: Database, signUpId: number, keep: number | null, now: number): boolean {
  return transact(db, () => {
    const running = runningTest(db, signUpId)
    if (!running || (keep !== null && !running.versions.includes(keep))) return false
    const over = { ended_at: now, kept: keep }
    run(db, q.updateTable('sign_up_tests').set(over).where('id', '=', running.id))
    if (keep !== null)
      run(db, q.updateTable('sign_ups').set({ live_version: keep }).where('id', '=', signUpId))
    return true
  })
}

/** Tests that are over, the latest first. */
export function endedTests(db: Database, signUpId: number) {
  const rows = all(
    db,
    q
      .selectFrom('sign_up_tests')
      .select(['id', 'versions', 'began_at', 'ended_at', 'kept'])
      .$narrowType<{ ended_at: number }>()
      .where('sign_up_id', '=', signUpId)
      .where('ended_at', 'is not', null)
      .orderBy('id', 'desc')
      .limit(20),
  )
  return rows.map(({ versions, began_at, ended_at, kept, id }) => ({
    ...{ id, beganAt: began_at, endedAt: ended_at, kept },
    versions: JSON.parse(versions) as number[],
  }))
}

/** What versions came to within a time: by how many they were seen, and how many of those confirmed. */
export function versionCounts(
  db: Database,
  signUpId: number,
  versions: readonly number[],
  { since, until }: { since: number; until: number },
) {
  const during = sql`sign_up_id = ${signUpId} and at >= ${since} and at <= ${until}`
  const rows = all(
    db,
    raw<{ version: number; seen: number; confirmed: number }>(sql`
      select version, sum(seen) as seen, sum(confirmed) as confirmed from (
        select version, count(*) as seen, 0 as confirmed from sign_up_visits
        where ${during} group by version
        union all
        select version, 0, count(*) from sign_up_sendings
        where ${during} and state = 'confirmed' group by version
      ) group by version`),
  )
  return versions.map(
    (version) => rows.find((row) => row.version === version) ?? { version, seen: 0, confirmed: 0 },
  )
}
