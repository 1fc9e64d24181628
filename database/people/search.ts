import { sql, type RawBuilder, type SqlBool } from 'kysely'
import { fold } from '../../core/segments'
import { one, raw, run, type Database } from '../query'
import { lately } from './lately'

/** What more people than this have in common is not looked up: those who lack it are soon passed over. */
const COMMON = 5_000

/**
 * The condition on a person's id that their address has the search in it, or their names have each of its words,
 * without regard to capitals and accents. With `early` it is asked of one person after the other, which is done soonest where a
 * few of many are wanted in an order.
 */
export function searchedFor(
  db: Database,
  search: string,
  id: RawBuilder<unknown>,
  { early }: { early: boolean },
): RawBuilder<SqlBool> {
  const inAddress = sql<SqlBool>`instr(normal, ${search.toLowerCase()}) > 0`
  const inName = namesHold(search)
  const holds = inName ? sql<SqlBool>`(${inAddress} or ${inName})` : inAddress
  const rare = rareWords(db, search)
  if (rare) return sql<SqlBool>`${id} in (select id from people where id in (${rare}) and ${holds})`
  if (early)
    return sql<SqlBool>`exists (select 1 from people as looked where looked.id = ${id} and ${holds})`
  // Each half reads one index from end to end rather than the wide table.
  return sql<SqlBool>`${id} in (select id from people where ${inAddress}
    ${inName ? sql`union all select id from people where ${inName}` : sql``})`
}

/** Drops from the index what deleted and changed people had in it, rather than when it next merges its parts. */
export function forgetWords(db: Database) {
  run(db, raw(sql`insert into people_words (people_words) values ('optimize')`))
}

/** Null where no name can hold it: digits, dots and accents without a letter are looked for in addresses alone. */
function namesHold(search: string): RawBuilder<SqlBool> | null {
  if (/[@.\d]/.test(search) || wordsOf(search).length === 0) return null
  const each = wordsOf(search).map(
    (word) => sql<SqlBool>`(${holds(sql`last_name`, word)} or ${holds(sql`first_name`, word)})`,
  )
  return sql<SqlBool>`(${sql.join(each, sql` and `)})`
}

/** Plain letters, which most names are made of, are compared as they are; only others have to be folded. */
function holds(name: RawBuilder<unknown>, word: string): RawBuilder<SqlBool> {
  const like = `%${word.replace(/[\\%_]/g, '\\$&')}%`
  return sql<SqlBool>`case when octet_length(${name}) = length(${name}) then ${name} like ${like} escape '\\'
    else coalesce(instr(fold(${name}), ${word}) > 0, 0) end`
}

/** The ids of all who may be meant, by three letters at a time; null where they are too many, or the words too short. */
function rareWords(db: Database, search: string): RawBuilder<{ id: number }> | null {
  const asked = [trigramsOf(fold(search))]
  if (namesHold(search)) asked.push(wordsOf(search).flatMap(trigramsOf))
  if (asked.some((trigrams) => !trigrams.length)) return null
  const match = asked
    .map(
      (trigrams) =>
        `(${trigrams.map((three) => `"${three.replaceAll('"', '""')}"`).join(' AND ')})`,
    )
    .join(' OR ')
  const ids = sql<{
    id: number
  }>`select rowid as id from people_words where people_words match ${match}`
  const some = raw(sql<{ n: number }>`select count(*) as n from (${ids} limit ${COMMON})`)
  return lately(db, `words ${match}`, () => one(db, some)!.n < COMMON) ? ids : null
}

function wordsOf(search: string): string[] {
  return fold(search).split(/\s+/).filter(Boolean).slice(0, 4)
}

function trigramsOf(text: string): string[] {
  const letters = [...text]
  return [...new Set(letters.slice(2).map((_, i) => letters.slice(i, i + 3).join('')))]
}
