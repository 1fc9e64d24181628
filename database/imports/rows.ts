import type { FieldValue, ImportEntry } from '../../core/people'
import type { Import } from './imports'

/** A row of a file as it was understood. */
export type UnderstoodRow =
  | { row: number; entry: ImportEntry; cells: readonly string[] }
  | { row: number; refused: string; cells: readonly string[] }
  /** Somebody left it out by hand. */
  | { row: number; leftOut: true; cells: readonly string[] }

export type Outcome =
  'added' | 'changed' | 'unchanged' | 'repeated' | 'refused' | 'never_mail' | 'skipped'
export type OutcomeCounts = Record<Outcome, number>

export const noCounts = (): OutcomeCounts => ({
  added: 0,
  changed: 0,
  unchanged: 0,
  repeated: 0,
  refused: 0,
  never_mail: 0,
  skipped: 0,
})

/** What changed about somebody who was on file, so that undoing can put back just that. */
export interface ImportChange {
  /** By field key: what was there, and what the import wrote. */
  values: Record<string, { was: FieldValue | null; now: FieldValue | null }>
  tags: number[]
  /** Lists they were put on, and how they stood before. */
  lists: { listId: number; was: string | null }[]
}

/** The lists a row's person joins: those its columns say yes to, and that of the whole file unless they say no. */
export function listsOf(of: Import, entry: ImportEntry): number[] {
  const lists = new Set([...entry.lists].filter(([, says]) => says).map(([list]) => list))
  if (of.list_id !== null && entry.lists.get(of.list_id) !== false) lists.add(of.list_id)
  return [...lists]
}

/** Values without those that are none. */
export function present(values: Record<string, FieldValue | null>): Record<string, FieldValue> {
  return Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null)) as Record<
    string,
    FieldValue
  >
}

/** What a found person becomes by a row, or null where nothing would change. Values not named stay. */
export function mergedValues(
  found: { first_name: string | null; last_name: string | null; fields: string },
  values: Record<string, FieldValue | null>,
) {
  const fields = JSON.parse(found.fields) as Record<string, FieldValue>
  const before: Record<string, FieldValue | null> = {
    ...fields,
    first_name: found.first_name,
    last_name: found.last_name,
  }
  const changed: ImportChange['values'] = {}
  for (const [key, now] of Object.entries(values)) {
    const was = before[key] ?? null
    if (JSON.stringify(was) !== JSON.stringify(now)) changed[key] = { was, now }
  }
  if (Object.keys(changed).length === 0) return null
  const { first_name, last_name, ...own } = { ...before, ...values }
  return {
    changed,
    row: {
      first: first_name as string | null,
      last: last_name as string | null,
      fields: JSON.stringify(present(own)),
    },
  }
}
