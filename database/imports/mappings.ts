import type { ColumnPlan } from '../../core/people'
import { readFields } from '../people'
import { all, one, q, run, type Database } from '../query'

/** How a file was taken the last time, besides its columns. */
export interface ImportChoices {
  mode: 'both' | 'add' | 'update'
  clearEmpty: boolean
  listId: number | null
  /** Missing of those remembered before it could be chosen. */
  repeats?: 'first' | 'last'
}

export interface RememberedMapping {
  plans: ColumnPlan[]
  choices: ImportChoices
  usedAt: number
}

/** Remembers how the columns of a file were taken, for the next file with the same header. */
export function rememberMapping(
  db: Database,
  header: readonly string[],
  plans: readonly ColumnPlan[],
  choices: ImportChoices,
  now: number,
) {
  const row = {
    plans: JSON.stringify(plans.map((plan) => ({ ...plan, samples: [] }))),
    choices: JSON.stringify(choices),
    used_at: now,
  }
  run(
    db,
    q
      .insertInto('import_mappings')
      .values({ header: signature(header), ...row })
      .onConflict((c) => c.column('header').doUpdateSet(row)),
  )
}

/**
 * How a file with this header was taken before, or null. A column whose field or list is gone is left out,
 * so that it is understood anew; a field made by that import is there by now.
 */
export function mappingFor(db: Database, header: readonly string[]): RememberedMapping | null {
  const row = one(
    db,
    q.selectFrom('import_mappings').selectAll().where('header', '=', signature(header)),
  )
  if (!row) return null
  const fields = new Set(readFields(db).map(({ key }) => key))
  const lists = new Set(all(db, q.selectFrom('lists').select('id')).map(({ id }) => id))
  const choices = JSON.parse(row.choices) as ImportChoices
  const plans = (JSON.parse(row.plans) as ColumnPlan[]).flatMap((plan): ColumnPlan[] => {
    const { target } = plan
    if (target.to === 'new-field' || target.to === 'field')
      return fields.has(target.key) ? [{ ...plan, target: { to: 'field', key: target.key } }] : []
    return target.to === 'list' && !lists.has(target.listId) ? [] : [plan]
  })
  return {
    plans,
    choices: {
      ...choices,
      listId: choices.listId !== null && lists.has(choices.listId) ? choices.listId : null,
    },
    usedAt: row.used_at,
  }
}

function signature(header: readonly string[]): string {
  return JSON.stringify(header.map((name) => name.trim().toLowerCase()))
}
