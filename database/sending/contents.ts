import { createHash } from 'node:crypto'
import { gunzipSync, gzipSync } from 'node:zlib'
import type { Replies } from '../../core/senders'
import { cleanDocument, readLetterhead, type Letter, type Letterhead } from '../../core/letters'
import {
  unpackLetter,
  type CompiledLetter,
  type FooterWords,
  type PackedLetter,
} from '../../core/letters/rendering'
import { all, one, q, run, type Database } from '../query'

/** All that goes out of a mailing or a variant of it, as it was when it began: nothing that is changed later changes it. */
export interface Content {
  packed: PackedLetter
  /** The letter with what its letterhead puts above and below it. */
  letter: Letter
  letterhead: Letterhead
  postalAddress: string
  /** Not there where it began before readers had a page of their own. */
  footer?: FooterWords
  senderName: string
  senderAddress: string
  /** Not there where it began before one could choose. */
  replies?: Replies
  list: { id: number; key: string; name: string }
  /** Public address of the installation that its links lead to. */
  url: string
}

/** Keeps what goes out, the same only once. In the transaction in which the mailing begins. */
export function keepContent(db: Database, mailingId: number, no: number, content: Content) {
  const json = JSON.stringify(content)
  const hash = createHash('sha256').update(json).digest('hex')
  const known = one(db, q.selectFrom('contents').select('hash').where('hash', '=', hash))
  if (!known) run(db, q.insertInto('contents').values({ hash, body: gzipSync(json) }))
  run(
    db,
    q
      .insertInto('mailing_contents')
      .values({ mailing_id: mailingId, no, hash })
      .onConflict((c) => c.doNothing()),
  )
}

/** What went out of a mailing (its variant `no`); null where it has not begun, or began before it was kept. */
export function contentOf(db: Database, mailingId: number, no = 0): Content | null {
  const row = one(
    db,
    q
      .selectFrom('mailing_contents')
      .innerJoin('contents', 'contents.hash', 'mailing_contents.hash')
      .select('body')
      .where('mailing_id', '=', mailingId)
      .where('no', '=', no),
  )
  return row ? readContent(row.body) : null
}

/** Of every variant, in their order. */
export function contentsOf(db: Database, mailingId: number): { no: number; content: Content }[] {
  return all(
    db,
    q
      .selectFrom('mailing_contents')
      .innerJoin('contents', 'contents.hash', 'mailing_contents.hash')
      .select(['no', 'body'])
      .where('mailing_id', '=', mailingId)
      .orderBy('no'),
  ).map(({ no, body }) => ({ no, content: readContent(body) }))
}

export function compiledOf({ packed }: Content): CompiledLetter {
  return unpackLetter(packed)
}

function readContent(body: Buffer): Content {
  const content = JSON.parse(gunzipSync(body).toString()) as Content
  const document = cleanDocument(content.letter.document)
  if (!document) throw new Error('What went out is always readable.')
  return {
    ...content,
    letter: { ...content.letter, document },
    letterhead: readLetterhead(content.letterhead),
  }
}
