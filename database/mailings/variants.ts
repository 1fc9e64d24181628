import type { Selectable } from 'kysely'
import { variantName, type DispatchPlan, type Variant } from '../../core/dispatch'
import type { Mailing } from './mailings'
import { mailingById } from './mailings'
import { letterOf } from '../letters'
import { all, one, q, run, type Database } from '../query'
import type { Schema } from '../schema'

/** A variant as it goes out: its own letter, sender's name and hour. */
export type SentVariant = Selectable<Schema['mailing_variants']>

/** The variants of a mailing that has begun; none where nothing is tried. */
export function variantsOf(db: Database, mailingId: number): SentVariant[] {
  return all(
    db,
    q.selectFrom('mailing_variants').selectAll().where('mailing_id', '=', mailingId).orderBy('no'),
  )
}

/**
 * Fixes what each variant of a test is when its mailing begins: its letter is copied, so that nothing that is changed
 * afterwards changes what goes out.
 */
export function fixVariants(
  db: Database,
  mailing: Mailing,
  { test }: DispatchPlan,
  senderName: string,
  now: number,
) {
  test?.variants.forEach((variant, no) => {
    const letter_id = no === 0 ? mailing.letter_id : copyLetter(db, mailing, test.of, variant, now)
    run(
      db,
      q.insertInto('mailing_variants').values({
        mailing_id: mailing.id,
        no,
        letter_id,
        sender_name: (test.of === 'sender' && no > 0 && variant.senderName.trim()) || senderName,
        hour: test.of === 'hour' ? variant.hour : null,
      }),
    )
  })
}

/** Which letters the variants of a plan are written in, besides the mailing's own. */
export function variantLetters(
  db: Database,
  { test }: DispatchPlan,
): { name: string; mailing: Mailing }[] {
  if (test?.of !== 'letter') return []
  return test.variants.flatMap(({ mailingId }, no) => {
    const mailing = no > 0 && mailingId !== null ? mailingById(db, mailingId) : undefined
    return mailing ? [{ name: variantName(no), mailing }] : []
  })
}

function copyLetter(
  db: Database,
  mailing: Mailing,
  of: 'subject' | 'sender' | 'letter' | 'hour',
  variant: Variant,
  now: number,
): number {
  const other =
    of === 'letter' && variant.mailingId !== null ? mailingById(db, variant.mailingId) : undefined
  const from = other?.letter_id ?? mailing.letter_id
  const letter = letterOf(db, from)
  const { letterhead_id } = one(
    db,
    q.selectFrom('letters').select('letterhead_id').where('id', '=', from),
  )!
  return run(
    db,
    q.insertInto('letters').values({
      subject: (of === 'subject' && variant.subject.trim()) || letter.subject,
      preview_text: (of === 'subject' && variant.previewText.trim()) || letter.previewText,
      document: JSON.stringify(letter.document),
      version: 1,
      updated_at: now,
      letterhead_id,
    }),
  ).id
}
