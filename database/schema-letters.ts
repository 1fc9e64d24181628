import type { Generated } from 'kysely'

/** The tables of letters: how they are, how they were, and what is said about them. */
export interface LetterTables {
  letters: {
    id: Generated<number>
    subject: string
    preview_text: string
    document: string
    version: number
    updated_at: number
    web_key: string | null
  }
  comments: {
    id: Generated<number>
    letter_id: number
    block_id: string
    answer_to: number | null
    at: number
    by_id: number
    by_name: string
    text: string
    resolved_at: number | null
    resolved_by: string | null
  }
  letter_versions: {
    id: Generated<number>
    letter_id: number
    began_at: number
    at: number
    by_id: number
    by_name: string
    version: number
    restored_from: number | null
    subject: string
    preview_text: string
    document: string
  }
}
