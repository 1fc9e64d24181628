import { compileLetter, mergeLetter, personContext } from '~~/core/letters/rendering'
import { all, one, q } from '~~/database'
import { audiencePeople, audienceWaterfall } from '~~/database/audience'
import { listById } from '~~/database/lists'
import { audienceOf, letterOf } from '~~/database/mailings'
import { valuesOf } from '~~/database/people'

/** The letter as the n-th person of the audience reads it. */
export default defineEventHandler(async (event) => {
  const { db, clock, url } = satchel()
  const mailing = mailingOf(event)
  const place = Math.max(0, Math.floor(Number(getQuery(event).n) || 0))
  const audience = audienceOf(mailing)
  const count = audience ? audienceWaterfall(db, audience, clock()).at(-1)!.left : 0
  const person =
    audience && count > 0
      ? all(db, audiencePeople(db, audience, clock(), 1, place % count))[0]
      : undefined
  const list = mailing.list_id === null ? undefined : listById(db, mailing.list_id)
  const { letterhead, postal_address, sender_name } = account()
  const compiled = await compileLetter(letterOf(db, mailing.letter_id), {
    letterhead,
    postalAddress: postal_address,
    listName: list?.public_name ?? 'this list',
    url,
  })
  const reader =
    person ??
    one(
      db,
      q
        .selectFrom('people')
        .select(['id', 'address', 'first_name', 'last_name', 'fields'])
        .limit(1),
    )
  const values = reader ? valuesOf(reader) : {}
  const merged = mergeLetter(
    compiled,
    personContext(
      { address: reader?.address ?? 'reader@letters.example', values },
      { list: list?.name ?? '', sender: sender_name, mailing: mailing.name },
    ),
  )
  return {
    ...merged,
    count,
    n: count ? place % count : 0,
    reader: reader
      ? {
          id: reader.id,
          address: reader.address,
          name: [reader.first_name, reader.last_name].filter(Boolean).join(' '),
        }
      : null,
    weight: Buffer.byteLength(merged.html),
  }
})
