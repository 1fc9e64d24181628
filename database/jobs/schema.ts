import type { Generated } from 'kysely'

/** The tables of work that the engine has to do. */
export interface JobTables {
  jobs: {
    id: Generated<number>
    kind:
      | 'import'
      | 'preview-import'
      | 'undo-import'
      | 'change-field'
      | 'order-field'
      | 'send-copies'
      | 'data-out'
      | 'move-acts'
      | 'move-inside'
    payload: string
    state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled'
    done: Generated<number>
    total: Generated<number>
    error: string | null
    engine: string | null
    cancel: Generated<number>
    created_at: number
    finished_at: number | null
    /** How often the process that carried it out ended at it. */
    deaths: Generated<number>
  }
}
