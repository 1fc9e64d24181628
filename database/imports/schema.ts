import type { Generated } from 'kysely'

/** The tables of what comes in by file and by the API. */
export interface ImportTables {
  import_mappings: { header: string; plans: string; choices: string; used_at: number }
  imports: {
    id: Generated<number>
    job_id: number | null
    file_name: string
    path: string
    size: number
    encoding: string
    delimiter: string
    /** The row of the header, from 1; 0: there is none. */
    header_row: Generated<number>
    /** The first row that is about a person. */
    first_row: Generated<number>
    /** Of several rows with one address: whether the first counts, or what a later one says replaces it. */
    repeats: Generated<'first' | 'last'>
    plans: string
    list_id: number | null
    statement: string
    state: ImportState
    /** Whether people are added, updated, or both. */
    mode: Generated<'both' | 'add' | 'update'>
    /** 1: an empty cell takes the value away; 0: it leaves it. */
    clear_empty: Generated<number>
    /** A tag that everybody in the file gets. */
    tag: string | null
    /** 1: who joins a list by it comes into the sequences that start so. */
    starts_sequences: Generated<number>
    /** JSON: what would happen, counted before anything is written. */
    preview: string | null
    /** JSON: what undoing it did. */
    undone: string | null
    rows: Generated<number>
    added: Generated<number>
    changed: Generated<number>
    unchanged: Generated<number>
    repeated: Generated<number>
    refused: Generated<number>
    never_mail: Generated<number>
    /** Left out because of the mode. */
    skipped: Generated<number>
    created_at: number
    finished_at: number | null
  }
  import_notices: {
    import_id: number
    row: number
    verdict: 'refused' | 'doubtful'
    reason: string
    cells: string
    /** 1: it was read before anything was written, and is not to be written. */
    left_out: Generated<number>
  }
  import_added: { import_id: number; first_id: number; last_id: number }
  /** What an import made that goes with it where nothing else uses it: fields by their key, tags by their id. */
  import_made: { import_id: number; kind: 'field' | 'tag'; ref: string }
  import_changes: { import_id: number; person_id: number; change: string }
  api_tokens: {
    id: Generated<number>
    name: string
    hash: string
    created_at: number
    last_used_at: number | null
    revoked_at: number | null
  }
  api_answers: {
    token_id: number
    key: string
    request_hash: string
    status: number
    answer: string
    at: number
  }
}

export type ImportState =
  | 'counting'
  | 'counted'
  | 'waiting'
  | 'running'
  | 'done'
  | 'failed'
  | 'cancelled'
  | 'undoing'
  | 'undone'
