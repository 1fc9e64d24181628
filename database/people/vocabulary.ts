import { sql } from 'kysely'
import { fold } from '../../core/segments'
import { all, one, q, raw, type Database } from '../query'
import { readFields } from './fields'
import { readGoneTags, readTags } from './tags'

/** Everything one can ask about in a rule, for finding it by its words. */
export function readVocabulary(db: Database) {
  return {
    fields: readFields(db),
    lists: all(db, q.selectFrom('lists').select(['id', 'name']).orderBy('id')),
    tags: readTags(db),
    goneTags: readGoneTags(db),
    mailings: all(
      db,
      q
        .selectFrom('mailings')
        .select(['id', 'name'])
        .where('started_at', 'is not', null)
        .orderBy('started_at', 'desc')
        .limit(300),
    ),
    links: all(
      db,
      q
        .selectFrom('mailing_links')
        .select(['mailing_id as mailingId', 'no', 'words', 'url'])
        .orderBy('mailing_id', 'desc')
        .orderBy('no')
        .limit(1_000),
    ),
    segments: all(
      db,
      q
        .selectFrom('segments')
        .select(['id', 'name'])
        .where('deleted_at', 'is', null)
        .orderBy('name'),
    ),
    sequences: all(db, q.selectFrom('sequences').select(['id', 'name']).orderBy('name')),
    imports: all(
      db,
      q
        .selectFrom('imports')
        .select(['id', 'file_name as name'])
        .where('added', '>', 0)
        .orderBy('id', 'desc')
        .limit(200),
    ),
    signUps: all(
      db,
      q
        .selectFrom('sign_ups')
        .select(['id', 'name'])
        .where('deleted_at', 'is', null)
        .orderBy('name'),
    ),
    products: all(
      db,
      q.selectFrom('products').select('name').distinct().orderBy('name').limit(500),
    ).map(({ name }) => name),
    categories: all(
      db,
      q.selectFrom('products').select('category').distinct().orderBy('category').limit(200),
    ).map(({ category }) => category),
    events: eventNames(db),
    domains: commonDomains(db),
  }
}

/** The domains of most addresses, with how many. */
export function commonDomains(db: Database): { domain: string; n: number }[] {
  return all(
    db,
    q
      .selectFrom('people')
      .select(['domain', (eb) => eb.fn.countAll<number>().as('n')])
      .groupBy('domain')
      .orderBy('n', 'desc')
      .limit(20),
  )
}

/** The names of events on file, hopping from one to the next in the index rather than reading all. */
export function eventNames(db: Database): string[] {
  const names: string[] = []
  for (;;) {
    let query = q.selectFrom('events').select('name').orderBy('name').limit(1)
    const last = names.at(-1)
    if (last !== undefined) query = query.where('name', '>', last)
    const found = one(db, query)
    if (!found || names.length >= 200) return names
    names.push(found.name)
  }
}

/** The values people have most often for a field, with how many have them; several choices count one by one. */
export function commonValues(db: Database, key: string): { value: string; n: number }[] {
  if (key === 'first_name' || key === 'last_name')
    return all(
      db,
      raw(
        sql<{
          value: string
          n: number
        }>`select ${sql.ref(key)} as value, count(*) as n from people where ${sql.ref(key)} <> '' group by 1 order by 2 desc limit 60`,
      ),
    )
  if (!/^[a-z_][a-z0-9_]*$/.test(key)) return []
  return all(
    db,
    raw(
      sql<{
        value: string
        n: number
      }>`select c.value as value, count(*) as n from people, json_each(case json_type(fields, ${`$.${key}`}) when 'array' then json_extract(fields, ${`$.${key}`}) else json_array(json_extract(fields, ${`$.${key}`})) end) c
        where json_type(fields, ${`$.${key}`}) in ('text', 'array') and c.type = 'text' and c.value <> ''
        group by 1 order by 2 desc limit 60`,
    ),
  )
}

/** The common values of each field, as they were found last. */
const found = new WeakMap<Database, Map<string, { at: number; values: string[] }>>()
/** So long they are taken for common, ms: finding them reads everybody. */
const COMMON_FOR = 600_000
const MOST_FOUND = 8

/** Values of the account's fields that begin with a text, or have a word that does, the most common first. */
export function findValues(
  db: Database,
  text: string,
  now: number,
): { field: string; name: string; value: string; several: boolean }[] {
  const wanted = fold(text.trim())
  if (wanted.length < 2) return []
  return readFields(db)
    .filter(({ kind }) => kind === 'text' || kind === 'choice' || kind === 'choices')
    .flatMap(({ key, name, kind }) =>
      valuesKept(db, key, now)
        .filter((value) => beginsWord(fold(value), wanted))
        .map((value) => ({ field: key, name, value, several: kind === 'choices' })),
    )
    .slice(0, MOST_FOUND)
}

function valuesKept(db: Database, key: string, now: number): string[] {
  const kept = found.get(db) ?? new Map<string, { at: number; values: string[] }>()
  found.set(db, kept)
  const had = kept.get(key)
  if (had && now >= had.at && now - had.at < COMMON_FOR) return had.values
  const values = commonValues(db, key).map(({ value }) => value)
  kept.set(key, { at: now, values })
  return values
}

function beginsWord(value: string, wanted: string): boolean {
  return value.startsWith(wanted) || value.includes(` ${wanted}`)
}
