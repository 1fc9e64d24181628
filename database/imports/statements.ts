import type { Import } from './imports'
import type { UnderstoodRow } from './rows'
import { prepared, q, type Database } from '../query'
import { wordingId } from '../wordings'

/** The statements an import runs for each of its rows, compiled once. */
export function importStatements(db: Database, of: Import) {
  const wording = of.statement === '' ? null : wordingId(db, of.statement)
  type Person = { id: number; first_name: string | null; last_name: string | null; fields: string }
  return {
    find: prepared<{ normal: string }, Person>(db, (value) =>
      q
        .selectFrom('people')
        .select(['id', 'first_name', 'last_name', 'fields'])
        .where('normal', '=', value('normal')),
    ),
    add: prepared<
      {
        address: string
        normal: string
        domain: string
        first: string | null
        last: string | null
        fields: string
        source: string
        now: number
      },
      { id: number }
    >(db, (value) =>
      q
        .insertInto('people')
        .values({
          address: value('address'),
          normal: value('normal'),
          domain: value('domain'),
          first_name: value('first'),
          last_name: value('last'),
          fields: value('fields'),
          source: value('source'),
          joined_at: value('now'),
          changed_at: value('now'),
        })
        .onConflict((c) => c.column('normal').doNothing())
        .returning('id'),
    ),
    change: prepared<{
      first: string | null
      last: string | null
      fields: string
      now: number
      id: number
    }>(db, (value) =>
      q
        .updateTable('people')
        .set({
          first_name: value('first'),
          last_name: value('last'),
          fields: value('fields'),
          changed_at: value('now'),
        })
        .where('id', '=', value('id')),
    ),
    tagNamed: prepared<{ name: string }, { id: number }>(db, (value) =>
      q.selectFrom('tags').select('id').where('name', '=', value('name')),
    ),
    hasTag: prepared<{ person: number; tag: number }>(db, (value) =>
      q
        .selectFrom('person_tags')
        .select('tag_id')
        .where('person_id', '=', value('person'))
        .where('tag_id', '=', value('tag')),
    ),
    tag: prepared<{ person: number; tag: number }>(db, (value) =>
      q
        .insertInto('person_tags')
        .values({ person_id: value('person'), tag_id: value('tag') })
        .onConflict((c) => c.doNothing()),
    ),
    aside: prepared<{ person: number }>(db, (value) =>
      q.selectFrom('set_aside').select('person_id').where('person_id', '=', value('person')),
    ),
    subscription: prepared<{ person: number; list: number }, { state: string }>(db, (value) =>
      q
        .selectFrom('subscriptions')
        .select('state')
        .where('person_id', '=', value('person'))
        .where('list_id', '=', value('list')),
    ),
    subscribe: prepared<{ person: number; list: number; now: number }>(db, (value) =>
      q
        .insertInto('subscriptions')
        .values({
          person_id: value('person'),
          list_id: value('list'),
          state: 'subscribed',
          since: value('now'),
        })
        .onConflict((c) =>
          c
            .columns(['person_id', 'list_id'])
            .doUpdateSet({ state: 'subscribed', since: value('now') }),
        ),
    ),
    evidence: prepared<{ person: number; list: number; now: number }>(db, (value) =>
      q.insertInto('evidence').values({
        person_id: value('person'),
        list_id: value('list'),
        at: value('now'),
        state: 'subscribed',
        way: 'import',
        way_ref: String(of.id),
        wording_id: wording,
      }),
    ),
    changed: prepared<{ person: number }, { change: string }>(db, (value) =>
      q
        .selectFrom('import_changes')
        .select('change')
        .where('import_id', '=', of.id)
        .where('person_id', '=', value('person')),
    ),
    remember: prepared<{ person: number; change: string }>(db, (value) =>
      q
        .insertInto('import_changes')
        .values({ import_id: of.id, person_id: value('person'), change: value('change') })
        .onConflict((c) =>
          c.columns(['import_id', 'person_id']).doUpdateSet({ change: value('change') }),
        ),
    ),
    notice: prepared<{
      row: number
      verdict: 'refused' | 'doubtful'
      reason: string
      cells: string
    }>(db, (value) =>
      q
        .insertInto('import_notices')
        .values({
          import_id: of.id,
          row: value('row'),
          verdict: value('verdict'),
          reason: value('reason'),
          cells: value('cells'),
        })
        .onConflict((c) => c.doNothing()),
    ),
  }
}

/** Keeps what is to be said of a row: why it is refused, or what is doubtful about it. */
export function noteRow(
  { notice }: Pick<ReturnType<typeof importStatements>, 'notice'>,
  item: UnderstoodRow,
) {
  const refused = 'refused' in item
  const reason = refused ? item.refused : 'entry' in item ? item.entry.cautions.join(' ') : ''
  if (reason === '') return
  const verdict = refused ? 'refused' : 'doubtful'
  notice.run({ row: item.row, verdict, reason, cells: JSON.stringify(item.cells) })
}
