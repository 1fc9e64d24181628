import { cleanDocument, type Letter, type LetterDocument } from '../../core/letters'
import { one, q, type Database } from '../query'

export interface StoredLetter extends Letter {
  version: number
}

/** A mailing’s letter as it is kept. */
export function letterOf(db: Database, letterId: number): StoredLetter {
  const row = one(db, q.selectFrom('letters').selectAll().where('id', '=', letterId))
  if (!row) throw new Error('A mailing always has a letter.')
  const document: LetterDocument | null = cleanDocument(JSON.parse(row.document))
  if (!document) throw new Error('A stored letter is always readable.')
  return { subject: row.subject, previewText: row.preview_text, document, version: row.version }
}
