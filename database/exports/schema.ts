import type { Generated } from 'kysely'
import type { DataEvery } from '../../core/results'

/** The tables of exports. */
export interface ExportTables {
  data_schedules: {
    id: Generated<number>
    /** JSON: what is taken out; see `DataChoice`. */
    choice: string
    every: DataEvery
    mail_to: string | null
    next_at: number
    created_at: number
  }
  data_outs: {
    id: Generated<number>
    key: string
    choice: string
    schedule_id: number | null
    mail_to: string | null
    job_id: number | null
    /** JSON: rows of each kind. */
    counts: string | null
    size: number | null
    created_at: number
    made_at: number | null
  }
}
