import { sql } from 'kysely'
import type { TagColor } from '../../core/people'
import { all, one, q, raw, run, transact, type Database } from '../query'
import { hushed } from './hushed'
import { markOf } from '../versions'
import { rewriteRules } from './rewrite-rules'

/** All tags by their name. */
export function readTags(db: Database): { id: number; name: string }[] {
  return all(db, q.selectFrom('tags').select(['id', 'name']).orderBy('name'))
}

/** What deleted tags were called. */
export function readGoneTags(db: Database): { id: number; name: string }[] {
  return all(db, q.selectFrom('gone_tags').select(['id', 'name']))
}

/** All tags with how many people have each. */
export function tagsWithCounts(db: Database) {
  return all(
    db,
    q
      .selectFrom('tags')
      .select(['id', 'name', 'color'])
      .$narrowType<{ color: TagColor }>()
      .select((eb) =>
        eb
          .selectFrom('person_tags')
          .select((inner) => inner.fn.countAll<number>().as('n'))
          .whereRef('tag_id', '=', 'tags.id')
          .as('people'),
      )
      .$narrowType<{ people: number }>()
      .orderBy((eb) => eb.fn('lower', ['name'])),
  )
}

/** The id of a tag by its name; made where there is none. */
export function tagNamed(db: Database, name: string): number {
  run(
    db,
    q
      .insertInto('tags')
      .values({ name })
      .onConflict((c) => c.doNothing()),
  )
  return one(db, q.selectFrom('tags').select('id').where('name', '=', name))!.id
}

/** The mark by which two who change a tag are told apart; undefined: there is no such tag. */
export function tagVersion(db: Database, id: number): string | undefined {
  const tag = one(db, q.selectFrom('tags').select(['name', 'color']).where('id', '=', id))
  return tag && markOf([tag.name, tag.color])
}

/** Renames or colours a tag. `taken`: another tag has the name; nothing is changed. */
export function changeTag(
  db: Database,
  id: number,
  change: { name?: string; color?: TagColor },
): 'changed' | 'taken' | 'gone' {
  return transact(db, () => {
    const other =
      change.name === undefined
        ? undefined
        : one(db, q.selectFrom('tags').select('id').where('name', '=', change.name))
    if (other && other.id !== id) return 'taken'
    return run(db, q.updateTable('tags').set(change).where('id', '=', id)).changes
      ? 'changed'
      : 'gone'
  })
}

/** Joins a tag to another: everybody who has it has the other, and so do the rules. */
export function joinTags(db: Database, gone: number, into: number): boolean {
  return hushed(db, () => {
    const both = all(db, q.selectFrom('tags').select('id').where('id', 'in', [gone, into]))
    if (gone === into || both.length < 2) return false
    run(
      db,
      q
        .insertInto('person_tags')
        .columns(['person_id', 'tag_id'])
        .expression((eb) =>
          eb
            .selectFrom('person_tags')
            .select(['person_id', eb.val(into).as('tag_id')])
            .where('tag_id', '=', gone),
        )
        .onConflict((c) => c.doNothing()),
    )
    rewriteRules(
      db,
      (part) => (part.kind === 'tagged' && part.tagId === gone ? { ...part, tagId: into } : part),
      (start) => (start.is === 'tag' && start.tagId === gone ? { ...start, tagId: into } : start),
    )
    run(
      db,
      raw(sql`update or ignore cue_watches set key = ${String(into)}
        where what in ('tagged', 'untagged') and key = ${String(gone)}`),
    )
    return deleteTag(db, gone)
  })
}

/** Takes a tag from everybody and away. Rules that ask for it say so from then on, and match nobody. */
export function deleteTag(db: Database, id: number): boolean {
  return hushed(db, () => {
    run(db, q.deleteFrom('person_tags').where('tag_id', '=', id))
    return run(db, q.deleteFrom('tags').where('id', '=', id)).changes === 1
  })
}
