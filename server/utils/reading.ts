import type { H3Event } from 'h3'
import { conditionsOf, truthOf } from '~~/core/letters'
import { mergeLetter, personContext } from '~~/core/letters/rendering'
import { all, one, q } from '~~/database'
import { audiencePeople, countAudience, somebodyLacking } from '~~/database/segments'
import { listById, valuesOf } from '~~/database/people'
import { audienceOf, readerValuesFor, readerOf, truthsOf } from '~~/database/mailings'
import { pickerFor } from '~~/database/letters'

/**
 * A mailing's letter as somebody reads it, as the query says who: the n-th person of the audience, or of those
 * for whom the letter's rules are as `truths` says (one rendition), or the person with an id.
 */
export async function readingOf(event: H3Event) {
  const { db, clock } = satchel()
  const mailing = mailingOf(event)
  const query = getQuery(event)
  const { letter, frame, compiled } = outgoingOf(mailing)
  const { rules } = conditionsOf(letter.document)
  const place = Math.max(0, Math.floor(Number(query.n) || 0))
  const now = clock()
  const audience = audienceOf(db, mailing)
  const truths = query.truths === undefined ? null : String(query.truths).split(',').map(Number)
  const count = audience && !truths ? countAudience(db, audience, now) : 0
  const reader = personById(chosenId() ?? firstId())
  const truth = reader ? (truthsOf(db, [reader.id], rules, now).get(reader.id) ?? 0) : 0
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
        ? pickerFor(db, letter.document, frame.url, now)?.pickFor([reader.id]).get(reader.id)
        : {},
      reader && list
        ? readerValuesFor(db, letter, list.id)?.([reader.id]).get(reader.id)
        : undefined,
    ),
    truthOf(truth, rules.length),
  )
  return { merged, count, n: count ? place % count : place, truth, reader }

  function chosenId(): number | undefined {
    if (query.person !== undefined) return Number(query.person)
    if (!audience) return undefined
    if (truths) return readerOf(db, audience, rules, truths, now, place)
    const lacks = String(query.lacks ?? '')
    if (/^\w+$/.test(lacks)) return somebodyLacking(db, audience, lacks, now)
    return count ? all(db, audiencePeople(db, audience, now, 1, place % count))[0]?.id : undefined
  }

  /** Where there is no audience yet, anybody does. */
  function firstId(): number | undefined {
    return one(db, q.selectFrom('people').select('id').limit(1))?.id
  }

  function personById(id: number | undefined) {
    return id === undefined
      ? undefined
      : one(
          db,
          q
            .selectFrom('people')
            .select(['id', 'address', 'first_name', 'last_name', 'fields'])
            .where('id', '=', id),
        )
  }
}
