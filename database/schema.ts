import type { AccountTables } from './account/schema'
import type { ExportTables } from './exports/schema'
import type { ImportTables } from './imports/schema'
import type { JobTables } from './jobs/schema'
import type { LabelTables } from './labels/schema'
import type { LetterTables } from './letters/schema'
import type { MailingTables } from './mailings/schema'
import type { PeopleTables } from './people/schema'
import type { ReaderTables } from './readers/schema'
import type { ResultTables } from './results/schema'
import type { SegmentTables } from './segments/schema'
import type { SendingTables } from './sending/schema'
import type { SequenceTables } from './sequences/schema'
import type { SignUpTables } from './sign-ups/schema'

/**
 * Every table, as Kysely sees it; each folder says what is in its own. Times are UTC milliseconds; columns named in the
 * singular of a table with `_id` refer to it; JSON is kept as text.
 */
export interface Schema
  extends
    AccountTables,
    ExportTables,
    ImportTables,
    JobTables,
    LabelTables,
    LetterTables,
    MailingTables,
    PeopleTables,
    ReaderTables,
    ResultTables,
    SegmentTables,
    SendingTables,
    SequenceTables,
    SignUpTables {}

export type { ImportState } from './imports/schema'
export type { MailingState } from './mailings/schema'
export type { ActTotal } from './sending/schema'
export type { SequenceState } from './sequences/schema'
