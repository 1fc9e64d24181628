import { startingLetter, type Letter } from '../core/letters'
import type { FieldValue } from '../core/people'
import { createAccount, newDkimKey, type AccountSettings } from './account'
import { openMemory } from './connect'
import type { Candidate, claimsOf } from './sending'
import { addList, addPerson, changeSubscription } from './people'
import { createMailing, moveMailing, planRecipients } from './mailings'
import type { Database } from './query'

/** Making a key takes longer than all the rest; one is enough for a run of tests. */
const dkimKey = newDkimKey()

/** An account with one list and nobody on it, in memory, for tests. */
export function madeUpAccount(settings: Partial<AccountSettings> = {}): {
  db: Database
  list: number
} {
  const db = openMemory()
  fillAccount(db, settings)
  return { db, list: addList(db, { name: 'Wind notes', description: '' }, 0) }
}

/** Makes the account of a database that is there already. */
export function fillAccount(db: Database, settings: Partial<AccountSettings> = {}, now = 0) {
  createAccount(
    db,
    {
      name: 'Galewright Kites',
      zone: 'Europe/London',
      currency: 'GBP',
      sender_name: 'Galewright Kites',
      sender_address: 'hello@galewright.example',
      postal_address: '1 Slipway, Sandreach',
      pace_per_minute: null,
      ...settings,
    },
    now,
    {},
    dkimKey,
  )
}

/** Somebody with the address `name@inkpost.example`, or as given; on a list where one is named. */
export function somebody(
  db: Database,
  name: string,
  {
    values = {},
    list = null,
    now = 0,
  }: { values?: Record<string, FieldValue>; list?: number | null; now?: number } = {},
): number {
  const address = name.includes('@') ? name : `${name}@inkpost.example`
  const normal = address.toLowerCase()
  const id = addPerson(
    db,
    { address, normal, domain: normal.slice(normal.indexOf('@') + 1), values },
    now,
  )
  if (id === null) throw new Error(`${address} is on file already.`)
  if (list !== null)
    changeSubscription(
      db,
      id,
      list,
      'subscribed',
      { act: 'person', way: 'form', wording: 'I want it.' },
      now,
    )
  return id
}

/** A mailing that is going out to everybody on a list, as its engine found it. */
export function mailingOnItsWay(
  db: Database,
  list: number,
  { letter = startingLetter(), now = 0 }: { letter?: Letter; now?: number } = {},
): number {
  const id = createMailing(db, { name: letter.subject || 'Wind notes', listId: list, letter }, now)
  moveMailing(db, id, ['draft'], 'sending', { started_at: now })
  planRecipients(db, id, { listId: list, rule: null }, now)
  return id
}

/** Claims the next of a mailing, as its engine does when that many conversations are free. */
export function claimSome(
  claims: ReturnType<typeof claimsOf>,
  limit: number,
  now: number,
): Candidate[] {
  return claims.claim(claims.upcoming(limit, new Set(), now), now)
}
