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
    /** Null: the account's own. */
    letterhead_id: number | null
  }
  stamps: {
    id: Generated<number>
    name: string
    content: string
    version: Generated<number>
    created_at: number
    updated_at: number
    deleted_at: number | null
  }
  own_templates: {
    id: Generated<number>
    name: string
    about: string
    subject: string
    preview_text: string
    document: string
    created_at: number
    by_name: string
    deleted_at: number | null
  }
  letterheads: {
    id: Generated<number>
    name: string
    look: string
    created_at: number
    deleted_at: number | null
  }
  approvals: {
    id: Generated<number>
    letter_id: number
    version: number
    asked_at: number
    asked_by: string
    of_id: number
    note: string
    answered_at: number | null
    verdict: 'approved' | 'not yet' | null
    words: string | null
    /** JSON: what was approved, see `GoesOut`; null where that was not kept. */
    of: string | null
  }
  pictures: {
    id: Generated<number>
    hash: string
    name: string
    mime: string
    width: number
    height: number
    bytes: Buffer
    created_at: number
    folder: Generated<string>
    alt: Generated<string>
    /** The picture that this one was cut or turned from. */
    made_from: string | null
    /** Not offered any more since then; letters that went out still show it. */
    removed_at: number | null
  }
  /** Pictures made to the width in which a letter shows them. */
  picture_sizes: { hash: string; width: number; mime: string; bytes: Buffer }
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
