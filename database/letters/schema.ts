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
  link_checks: {
    url: string
    asked_at: number
    checked_at: number | null
    status: number | null
    problem: string | null
  }
  feeds: {
    url: string
    asked_at: number
    /** Null until the engine has read it since it was asked for. */
    read_at: number | null
    entries: Generated<string>
    problem: string | null
  }
  own_words: { word: string }
}
