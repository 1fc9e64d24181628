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
import { idsOnce } from './0023-ids-once'
import { askedImports } from './0024-asked-imports'
import { whoWasSentNone } from './0025-who-was-sent-none'
import { openedOn } from './0026-opened-on'
import { namesWithoutAccents } from './0027-names-without-accents'
import { goneTags } from './0028-gone-tags'
import { decidedOn } from './0029-decided-on'
import { ownHours } from './0030-own-hours'
import { heldOutWithAPart } from './0031-held-out-with-a-part'
import { listsBesideFacts } from './0032-lists-beside-facts'
import { readersOwnPage } from './0033-readers-own-page'
import { mergedPeople } from './0034-merged-people'
import { signUps } from './0035-sign-ups'
import { afterSigningUp } from './0036-after-signing-up'
import { sequenceTraffic } from './0037-sequence-traffic'
import { rounds } from './0038-rounds'
import { sequenceTrail } from './0039-sequence-trail'
import { cues } from './0040-cues'
import { handOvers } from './0041-hand-overs'
import { resuming } from './0042-resuming'
import { keptSequences } from './0043-kept-sequences'
import { labels } from './0044-labels'
import { quietHours } from './0045-quiet-hours'
import { tasks } from './0046-tasks'

/** SQL; or what has to be done while foreign keys are off, as where a table that others refer to is made anew. */
type Step = string | { withoutForeignKeys(sqlite: Sqlite.Database): void }

/** Every step from an empty file to the present schema. A step that has landed is never changed. */
export const migrations: readonly Step[] = [
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
  idsOnce,
  askedImports,
  whoWasSentNone,
  openedOn,
  namesWithoutAccents,
  goneTags,
  decidedOn,
  ownHours,
  heldOutWithAPart,
  listsBesideFacts,
  readersOwnPage,
  mergedPeople,
  signUps,
  afterSigningUp,
  sequenceTraffic,
  rounds,
  sequenceTrail,
  cues,
  handOvers,
  resuming,
  keptSequences,
  labels,
  quietHours,
  tasks,
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
    takeStep(sqlite, version())
  }
}

/** Takes the step from a version, unless another process was faster. */
function takeStep(sqlite: Sqlite.Database, from: number) {
  const step = migrations[from]!
  const take = sqlite.transaction(() => {
    if (sqlite.pragma('user_version', { simple: true }) !== from) return
    if (typeof step === 'string') sqlite.exec(step)
    else step.withoutForeignKeys(sqlite)
    sqlite.pragma(`user_version = ${from + 1}`)
  })
  if (typeof step === 'string') return take.immediate()
  // In a transaction neither can be changed (foreign keys), or would come too late (names in triggers).
  const keys = sqlite.pragma('foreign_keys', { simple: true })
  sqlite.pragma('foreign_keys = off')
  sqlite.pragma('legacy_alter_table = on')
  try {
    take.immediate()
  } finally {
    sqlite.pragma('legacy_alter_table = off')
    sqlite.pragma(`foreign_keys = ${keys}`)
  }
}
