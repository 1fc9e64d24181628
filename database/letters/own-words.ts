import { all, q, run, type Database } from '../query'

/** Keeps a word as the account's own. Whether it was new. */
export function addOwnWord(db: Database, word: string): boolean {
  const own = q
    .insertInto('own_words')
    .values({ word: word.toLowerCase() })
    .onConflict((c) => c.doNothing())
  return run(db, own).changes === 1
}

export function removeOwnWord(db: Database, word: string): boolean {
  return run(db, q.deleteFrom('own_words').where('word', '=', word.toLowerCase())).changes === 1
}

/** Words that need no dictionary, in lower case: the account's own, and those of the names it has given. */
export function ownWords(db: Database): Set<string> {
  const named = [
    ...all(db, q.selectFrom('account').select(['name', 'sender_name'])).flatMap((account) => [
      account.name,
      account.sender_name,
    ]),
    ...all(db, q.selectFrom('lists').select(['name'])).map(({ name }) => name),
    ...all(db, q.selectFrom('products').select(['name'])).map(({ name }) => name),
  ]
  return new Set([
    ...all(db, q.selectFrom('own_words').select('word')).map(({ word }) => word),
    ...named.flatMap((name) => name.toLowerCase().match(/[\p{L}']{3,}/gu) ?? []),
  ])
}
