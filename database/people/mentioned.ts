import { sql } from 'kysely'
import { dropFieldOrder } from './field-order'
import { deleteTag } from './tags'
import { one, q, raw, run, type Database } from '../query'

/** Everything that may name a field or a tag: rules, maps of sequences, letters, what is taken out. Conditions stand in all of them. */
const places = [
  ['segments', 'rule'],
  ['mailings', 'rule'],
  ['mailings', 'left_out'],
  ['mailings', 'plan'],
  ['sequences', 'map'],
  ['sequence_versions', 'map'],
  ['letters', 'document'],
  ['own_templates', 'document'],
  ['kept_sequences', 'file'],
  ['stamps', 'content'],
  ['data_schedules', 'choice'],
] as const

/** Whether a text stands anywhere in what was made with fields and tags. Rather too often than too seldom. */
function isMentioned(db: Database, text: string): boolean {
  return places.some(
    ([table, column]) =>
      one(
        db,
        raw(
          sql`select 1 as found from ${sql.table(table)} where instr(${sql.ref(column)}, ${text}) > 0 limit 1`,
        ),
      ) !== undefined,
  )
}

/** Takes a field away that nobody has a value of and nothing asks for. Whether it is gone. */
export function dropUnusedField(db: Database, key: string): boolean {
  const valued = raw(
    sql`select 1 as found from people where json_extract(fields, ${`$.${key}`}) is not null limit 1`,
  )
  if (one(db, valued) !== undefined || isMentioned(db, key)) return false
  dropFieldOrder(db, key)
  return run(db, q.deleteFrom('fields').where('key', '=', key)).changes === 1
}

/** Takes a tag away that nobody has and no rule asks for. Whether it is gone. */
export function dropUnusedTag(db: Database, id: number): boolean {
  const tagged = q.selectFrom('person_tags').select('person_id').where('tag_id', '=', id).limit(1)
  if (one(db, tagged) !== undefined) return false
  if (isMentioned(db, `"tagId":${id},`) || isMentioned(db, `"tagId":${id}}`)) return false
  return deleteTag(db, id)
}
