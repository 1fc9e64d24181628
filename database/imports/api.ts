import { createHash, randomBytes } from 'node:crypto'
import { daysKept } from '../../core/retention'
import { DAY } from '../../core/time'
import { checkAddress } from '../../core/people'
import {
  changeSubscription,
  erasedAsker,
  tagNamed,
  addPerson,
  changePerson,
  tagPeople,
} from '../people'
import { all, one, q, run, transact, type Database } from '../query'
import { asItRuns, letInSoon, sequenceById } from '../sequences'
import type { FieldValue } from '../../core/people'

/** A token is shown once; only its hash is kept. */
export function addApiToken(
  db: Database,
  name: string,
  now: number,
): { id: number; token: string } {
  const token = `st_${randomBytes(24).toString('base64url')}`
  const { id } = run(
    db,
    q.insertInto('api_tokens').values({ name, hash: hashOf(token), created_at: now }),
  )
  return { id, token }
}

export function apiTokens(db: Database) {
  return all(
    db,
    q
      .selectFrom('api_tokens')
      .select(['id', 'name', 'created_at', 'last_used_at'])
      .where('revoked_at', 'is', null)
      .orderBy('id'),
  )
}

export function revokeApiToken(db: Database, id: number, now: number): boolean {
  return (
    run(
      db,
      q
        .updateTable('api_tokens')
        .set({ revoked_at: now })
        .where('id', '=', id)
        .where('revoked_at', 'is', null),
    ).changes === 1
  )
}

/** The id of a token that may be used; null for any other. */
export function useApiToken(db: Database, token: string, now: number): number | null {
  const found = one(
    db,
    q
      .selectFrom('api_tokens')
      .select('id')
      .where('hash', '=', hashOf(token))
      .where('revoked_at', 'is', null),
  )
  if (!found) return null
  run(db, q.updateTable('api_tokens').set({ last_used_at: now }).where('id', '=', found.id))
  return found.id
}

/** An answer is kept for its idempotency key for so long. */
const ANSWERS_STAY = daysKept('answers') * DAY

/** What a request with an idempotency key was answered before; with another body the key is spent. */
export function answerBefore(db: Database, tokenId: number, key: string, body: string) {
  const before = one(
    db,
    q.selectFrom('api_answers').selectAll().where('token_id', '=', tokenId).where('key', '=', key),
  )
  if (!before) return null
  return before.request_hash === hashOf(body)
    ? { status: before.status, answer: before.answer }
    : ('spent' as const)
}

/** Keeps an answer for its key; those of long ago are forgotten. */
export function keepAnswer(
  db: Database,
  tokenId: number,
  key: string,
  body: string,
  status: number,
  answer: string,
  now: number,
) {
  run(db, q.deleteFrom('api_answers').where('at', '<', now - ANSWERS_STAY))
  run(
    db,
    q
      .insertInto('api_answers')
      .values({ token_id: tokenId, key, request_hash: hashOf(body), status, answer, at: now })
      .onConflict((c) => c.doNothing()),
  )
}

function hashOf(text: string): string {
  return createHash('sha256').update(text).digest('hex')
}

/** What became of one entry of a batch. */
export type EntryResult =
  | { index: number; status: 'added' | 'changed' | 'unchanged' }
  | { index: number; status: 'refused'; path: string; message: string }

/** A fault in one entry: where in it, and in words. */
export class EntryFault extends Error {
  constructor(
    readonly path: string,
    message: string,
  ) {
    super(message)
  }
}

/** Takes the entries of a batch one by one, in one transaction; a faulty one is refused, the others are taken. */
export function takeBatch<T>(
  db: Database,
  entries: readonly T[],
  take: (entry: T) => 'added' | 'changed' | 'unchanged',
): EntryResult[] {
  return transact(db, () =>
    entries.map((entry, index): EntryResult => {
      try {
        // A savepoint of its own, so that nothing of a refused entry stays.
        return { index, status: db.sqlite.transaction(() => take(entry))() }
      } catch (fault) {
        const refused = faultOf(fault)
        if (!refused) throw fault
        return { index, status: 'refused', path: refused.path, message: refused.message }
      }
    }),
  )
}

/** What an entry is refused for; null for what is no fault of the entry, such as a disk that is full. */
function faultOf(error: unknown): EntryFault | null {
  if (error instanceof EntryFault) return error
  const { code } = error as { code?: unknown }
  return typeof code === 'string' && /^SQLITE_(?:CONSTRAINT|MISMATCH|TOOBIG)/.test(code)
    ? new EntryFault('', 'It can’t be kept as it is: a part of it has no place on file.')
    : null
}

export interface ApiPerson {
  address: string
  values: Record<string, FieldValue | null>
  tags: string[]
  /** Lists by their key, with what the person agreed to. */
  lists: { list: string; agreed: string }[]
}

/** Adds or changes a person; subscriptions as an import would make them: nobody who left is brought back. */
export function takePerson(
  db: Database,
  given: ApiPerson,
  now: number,
): 'added' | 'changed' | 'unchanged' {
  const checked = checkAddress(given.address)
  if (!checked.ok) throw new EntryFault('address', 'This is not an e-mail address.')
  const { address, normal, domain } = checked
  if (erasedAsker(db)(normal))
    throw new EntryFault('address', 'This person was erased at their wish.')
  const values = Object.fromEntries(
    Object.entries(given.values).filter(([, value]) => value !== null),
  ) as Record<string, FieldValue>
  const added = addPerson(db, { address, normal, domain, values, source: 'api' }, now)
  const id = added ?? personByAddress(db, normal)!
  let changed = added !== null
  if (added === null) {
    const undo = changePerson(db, id, { values: given.values }, now)!
    changed = JSON.stringify(undo.values) !== JSON.stringify(given.values)
  }
  for (const tag of given.tags)
    if (tagPeople(db, [id], tagNamed(db, tag), true).length) changed = true
  given.lists.forEach(({ list, agreed }, i) => {
    const found = one(db, q.selectFrom('lists').select('id').where('key', '=', list))
    if (!found) throw new EntryFault(`lists[${i}].list`, `There is no list with the key “${list}”.`)
    const before = one(
      db,
      q
        .selectFrom('subscriptions')
        .select('state')
        .where('person_id', '=', id)
        .where('list_id', '=', found.id),
    )?.state
    const after = changeSubscription(
      db,
      id,
      found.id,
      'subscribed',
      { act: 'import', way: 'API', wording: agreed },
      now,
    )
    if (after !== before) changed = true
  })
  return added !== null ? 'added' : changed ? 'changed' : 'unchanged'
}

export interface ApiEvent {
  address: string
  name: string
  at: number
  properties: Record<string, string | number | boolean>
}

/** Adds an event to somebody on file. */
export function takeEvent(db: Database, given: ApiEvent): 'added' {
  const person_id = knownPerson(db, given.address)
  run(
    db,
    q.insertInto('events').values({
      person_id,
      name: given.name,
      at: given.at,
      props: JSON.stringify(given.properties),
    }),
  )
  return 'added'
}

export interface ApiArrival {
  address: string
  /** Its number, as its address on the web says it. */
  sequence: number
}

/** Puts somebody on file at the door of a running sequence that the API lets people into. */
export function takeArrival(db: Database, given: ApiArrival, now: number): 'added' {
  const person = knownPerson(db, given.address)
  const sequence = sequenceById(db, given.sequence)
  if (!sequence) throw new EntryFault('sequence', 'There is no sequence of this number.')
  const start = asItRuns(db, sequence).map.start.by.findIndex(({ is }) => is === 'api')
  if (start === -1)
    throw new EntryFault('sequence', 'Its start does not say that the API lets people in.')
  if (sequence.state !== 'running')
    throw new EntryFault('sequence', 'It does not run just now, so nobody can be let in.')
  letInSoon(db, sequence.id, start, [person], now)
  return 'added'
}

export interface ApiProduct {
  key: string
  name: string
  category: string
  /** Minor units. */
  price: number
  url: string | null
  picture: string | null
  stock: number | null
}

/** Adds a product, or changes what is known of it. */
export function takeProduct(
  db: Database,
  product: ApiProduct,
  now: number,
): 'added' | 'changed' | 'unchanged' {
  const { key, ...known } = product
  const before = one(db, q.selectFrom('products').selectAll().where('key', '=', key))
  if (!before) {
    run(db, q.insertInto('products').values({ ...product, created_at: now }))
    return 'added'
  }
  const same = Object.entries(known).every(([name, value]) => before[name as 'name'] === value)
  if (same) return 'unchanged'
  run(db, q.updateTable('products').set(known).where('id', '=', before.id))
  return 'changed'
}

export interface ApiOrder {
  number: string
  address: string
  at: number
  items: { product: string; name: string; category: string; quantity: number; money: number }[]
}

/** Adds an order; the same number a second time changes nothing. */
export function takeOrder(db: Database, given: ApiOrder, now: number): 'added' | 'unchanged' {
  if (one(db, q.selectFrom('orders').select('id').where('number', '=', given.number)))
    return 'unchanged'
  const person_id = knownPerson(db, given.address)
  const money = given.items.reduce((sum, item) => sum + item.money, 0)
  const { id } = run(
    db,
    q.insertInto('orders').values({ number: given.number, person_id, at: given.at, money }),
  )
  given.items.forEach((item, position) => {
    run(
      db,
      q
        .insertInto('products')
        .values({
          key: item.product,
          name: item.name,
          category: item.category,
          price: Math.round(item.money / item.quantity),
          created_at: now,
        })
        .onConflict((c) => c.doNothing()),
    )
    const product = one(db, q.selectFrom('products').select('id').where('key', '=', item.product))!
    run(
      db,
      q.insertInto('order_items').values({
        order_id: id,
        position,
        product_id: product.id,
        quantity: item.quantity,
        money: item.money,
      }),
    )
  })
  return 'added'
}

function knownPerson(db: Database, address: string): number {
  const checked = checkAddress(address)
  const id = checked.ok ? personByAddress(db, checked.normal) : null
  if (id === null) throw new EntryFault('address', 'Nobody with this address is on file.')
  return id
}

function personByAddress(db: Database, normal: string): number | null {
  return one(db, q.selectFrom('people').select('id').where('normal', '=', normal))?.id ?? null
}
