import type { H3Event } from 'h3'
import { readAs } from '~~/cases/letters'

/**
 * A mailing's letter as somebody reads it, as the query says who: the n-th person of the audience (`n`), or of those
 * for whom the letter's rules are as `truths` says (one rendition), one who lacks a field (`lacks`), or a `person`.
 */
export function readingOf(event: H3Event) {
  const { db, clock, url } = satchel()
  const query = getQuery(event)
  const given = (name: string) => (query[name] === undefined ? undefined : String(query[name]))
  const reader = {
    person: given('person') === undefined ? undefined : Number(query.person),
    truths: given('truths')?.split(',').map(Number),
    lacks: given('lacks'),
    n: Number(query.n) || 0,
  }
  return madeOrRefused(readAs(db, mailingOf(event), reader, { url, now: clock() }))
}

/** A letter that can't be made is refused with the reason. */
export async function madeOrRefused<T>(made: Promise<T>): Promise<T> {
  return made.catch((error: Error) => {
    throw refused(`The letter can’t be made: ${error.message}`)
  })
}
