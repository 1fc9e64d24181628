import { conditionsOf, truthOf } from '../../core/letters'
import { mergeLetter, personContext } from '../../core/letters/rendering'
import { all, type Database } from '../../database'
import { pickerFor } from '../../database/letters'
import {
  audienceOf,
  readerOf,
  readerValuesFor,
  truthsOf,
  type Mailing,
} from '../../database/mailings'
import {
  anybody,
  latestRound,
  listById,
  readerById,
  roundKey,
  valuesOf,
} from '../../database/people'
import { audiencePeople, countAudience, somebodyLacking } from '../../database/segments'
import { footersFor } from './footer'
import { outgoingOf } from './outgoing'

/** Who reads: somebody by id, or the n-th of the audience, or of those for whom the letter's rules are as `truths` says. */
export interface Reader {
  person?: number
  truths?: readonly number[]
  /** Somebody of the audience who has nothing in this field. */
  lacks?: string
  n?: number
}

/** A mailing's letter as somebody reads it. Rejects where the letter can't be made. */
export async function readAs(
  db: Database,
  mailing: Mailing,
  { person, truths, lacks = '', n = 0 }: Reader,
  { url, now }: { url: string; now: number },
) {
  const { letter, frame, compiled } = outgoingOf(db, mailing, url)
  const { rules } = conditionsOf(letter.document)
  const place = Number.isFinite(n) ? Math.max(0, Math.floor(n)) : 0
  const audience = audienceOf(db, mailing)
  const count = audience && !truths ? countAudience(db, audience, now) : 0
  // Where there is no audience yet, anybody does.
  const reader = readerById(db, chosen() ?? anybody(db))
  const truth = reader ? (truthsOf(db, [reader.id], rules, now).get(reader.id) ?? 0) : 0
  const sequence = mailing.sequence_id
  const round = reader && latestRound(db, sequence, reader.id)
  const key = round ? roundKey(round) : ''
  const list = mailing.list_id === null ? undefined : listById(db, mailing.list_id)
  const merged = mergeLetter(
    await compiled(),
    personContext(
      {
        address: reader?.address ?? 'reader@letters.example',
        values: reader ? valuesOf(reader) : {},
      },
      { list: list?.name ?? '', sender: frame.senderName, mailing: mailing.name },
      reader
        ? pickerFor(db, letter.document, frame.url, now, sequence)?.pickFor([round!]).get(key)
        : {},
      {
        ...(reader && list
          ? readerValuesFor(db, letter, list.id, sequence)?.([round!]).get(key)
          : undefined),
        ...(reader ? footersFor(db, mailing.list_id)?.(valuesOf(reader)) : undefined),
      },
    ),
    truthOf(truth, rules.length),
  )
  return { merged, count, n: count ? place % count : place, truth, reader }

  function chosen(): number | undefined {
    if (person !== undefined) return person
    if (!audience) return undefined
    if (truths) return readerOf(db, audience, rules, truths, now, place)
    if (/^\w+$/.test(lacks)) return somebodyLacking(db, audience, lacks, now)
    return count ? all(db, audiencePeople(db, audience, now, 1, place % count))[0]?.id : undefined
  }
}
