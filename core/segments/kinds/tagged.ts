import { sql, type SqlBool } from 'kysely'
import { isWhole } from '../values/comparison'
import { named } from '../values/write'
import type { ConditionKind } from './kind'

/** Who has a tag. */
export interface Tagged {
  kind: 'tagged'
  tagId: number
}

export const tagged: ConditionKind<Tagged> = {
  read: ({ tagId }) => (isWhole(tagId, 1) ? { kind: 'tagged', tagId } : null),
  ready(of, { tags, goneTags }) {
    if (tags.has(of.tagId)) return of
    const name = goneTags.get(of.tagId)
    return name === undefined
      ? 'The tag asked for here is gone.'
      : `The tag “${name}” asked for here is deleted.`
  },
  sql: ({ tagId }) =>
    sql<SqlBool>`exists (select 1 from person_tags t where t.person_id = facts.person_id and t.tag_id = ${tagId})`,
  ids: ({ tagId }) => sql`select person_id from person_tags where tag_id = ${tagId}`,
  predicate:
    ({ tagId }) =>
    (person) =>
      person.tags.has(tagId),
  fact(_, person, { names }) {
    const tags = [...person.tags].map((id) => names.tags.get(id)).filter(Boolean)
    return tags.length ? `tagged ${tags.join(', ')}` : 'no tags'
  },
  phrases: [
    {
      begins: 'tagged',
      read: (r, { tags }) => ({ kind: 'tagged', tagId: r.named(tags, 'tag') }),
    },
  ],
  write: ({ tagId }, { tags }) => `tagged ${named(tagId, tags)}`,
  offers: ({ tags }) =>
    tags.flatMap(({ id, name }) => [
      { words: `Tagged ${name}`, also: 'tag', of: { kind: 'tagged' as const, tagId: id } },
      {
        words: `Not tagged ${name}`,
        also: 'tag without',
        of: { kind: 'tagged' as const, tagId: id },
        not: true as const,
      },
    ]),
}
