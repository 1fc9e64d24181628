import { isPaused, languageFor, toldIn, type ReaderPage, type Told } from '../../core/readers'
import { saidLanguage } from '../../core/people/language'
import type { Database } from '../../database'
import { readAccount } from '../../database/account'
import {
  isSuppressed,
  listById,
  openFields,
  personDetails,
  readLists,
  valuesOf,
} from '../../database/people'
import { ownLimitsOf, readerWords } from '../../database/readers'

/** How somebody is spoken to: in the language that a field of theirs says, or their list's, or the account's. */
export function toldTo(db: Database, personId: number | null, listId: number | null): Told {
  const account = readAccount(db)!
  const person = personId === null ? undefined : personDetails(db, personId)?.person
  const values = person ? valuesOf(person) : {}
  const language = languageFor({
    said: saidLanguage(values),
    list: listId === null ? null : listById(db, listId)?.language,
    account: account.language,
  })
  return toldIn(readerWords(db, language), language, account.zone)
}

/** What somebody sees on their own page; null where there is nobody. */
export function readerPage(db: Database, personId: number, now: number): ReaderPage | null {
  const details = personDetails(db, personId)
  if (!details) return null
  const { person, subscriptions } = details
  const limits = ownLimitsOf(db, personId)
  const values = valuesOf(person)
  const states = new Map(subscriptions.map((one) => [one.list_id, one]))
  return {
    sender: readAccount(db)!.name,
    address: person.address,
    suppressed: isSuppressed(db, personId),
    // What they were ever on, and what they may join.
    lists: readLists(db)
      .filter(({ id, offered }) => states.has(id) || offered)
      .map(({ id, public_name, public_about, public_often }) => ({
        id,
        name: public_name,
        about: public_about,
        often: public_often,
        state: states.get(id)?.state ?? null,
        since: states.get(id)?.since ?? null,
      })),
    limits: isPaused(limits, now) ? limits : { ...limits, pausedUntil: null },
    fields: openFields(db).map((field) => ({ field, value: values[field.key] ?? null })),
  }
}
