import type Sqlite from 'better-sqlite3'
import { foundations } from './0001-foundations'
import { segmentsAndFacts } from './0002-segments'
import { vocabulary } from './0003-vocabulary'
import { letterHistory } from './0004-letter-history'
import { comments } from './0005-comments'
import { letterParts } from './0006-letter-parts'
import { dispatch } from './0007-dispatch'
import { dataOut } from './0008-data-out'
import { rollUps } from './0009-roll-ups'
import { audiences } from './0010-audiences'
import { sequences } from './0011-sequences'
import { domainChecks } from './0012-domain-checks'
import { moreDispatch } from './0013-more-dispatch'
import { keptReady } from './0014-kept-ready'
import { trialDelivery } from './0015-trial-delivery'
import { whatGoesOut } from './0016-what-goes-out'
import { jobsThatDie } from './0017-jobs-that-die'
import { team } from './0018-team'
import { retentionOfReports } from './0019-retention'
import { longerTokens } from './0020-longer-tokens'
import { noPlanned } from './0021-no-planned'
import { whatComesBack } from './0022-what-comes-back'

/** Every step from an empty file to the present schema. A step that has landed is never changed. */
export const migrations: readonly string[] = [
  foundations,
  segmentsAndFacts,
  vocabulary,
  letterHistory,
  comments,
  letterParts,
  dispatch,
  dataOut,
  rollUps,
  audiences,
  sequences,
  domainChecks,
  moreDispatch,
  keptReady,
  trialDelivery,
  whatGoesOut,
  jobsThatDie,
  team,
  retentionOfReports,
  longerTokens,
  noPlanned,
  whatComesBack,
]

/**
 * Brings a database to the present schema, each step in a transaction of its own together with the
 * number that says it was taken (SQLite's `user_version`).
 * Throws where the database comes from a newer Satchel than this one.
 */
export function migrate(
  sqlite: Sqlite.Database,
  upTo = migrations.length,
  onStep: (step: number, of: number) => void = () => {},
) {
  const version = () => sqlite.pragma('user_version', { simple: true }) as number
  if (version() > migrations.length)
    throw new Error(
      'This data folder was written by a newer version of Satchel. Install that version or choose another folder.',
    )
  while (version() < upTo) {
    onStep(version() + 1, upTo)
    sqlite
      .transaction(() => {
        const from = version()
        if (from >= upTo) return // another process was faster
        sqlite.exec(migrations[from]!)
        sqlite.pragma(`user_version = ${from + 1}`)
      })
      .immediate()
  }
}
