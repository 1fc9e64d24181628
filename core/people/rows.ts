import { addressProblems, checkAddress } from './address'
import type { ColumnPlan } from './columns'
import { readFieldValue, splitValues, type FieldKind, type FieldValue } from './fields'
import { splitName } from './names'
import { readYesNo } from './values'

/** What one row of a file says about one person. Only what is to change is named; null takes a value away. */
export interface ImportEntry {
  address: string
  normal: string
  domain: string
  values: Record<string, FieldValue | null>
  tags: string[]
  /** Lists by their id: whether the person says yes or no to them. */
  lists: Map<number, boolean>
  /** What was read but looks doubtful or was left out, in words. */
  cautions: string[]
}

export type RowOutcome = { ok: true; entry: ImportEntry } | { ok: false; reason: string }

/**
 * Reads one row by the plans of its columns. `kinds` has the kind of every field named in a plan.
 * With `clearEmpty` an empty cell takes the value away, else it leaves it.
 * A row is refused when nobody can be told from it; a single cell that can't be read is left out
 * and said in `cautions`.
 */
export function interpretRow(
  cells: readonly string[],
  plans: readonly ColumnPlan[],
  kinds: ReadonlyMap<string, FieldKind>,
  options: { clearEmpty?: boolean } = {},
): RowOutcome {
  if (cells.length > plans.length && cells.slice(plans.length).some((cell) => cell.trim() !== ''))
    return {
      ok: false,
      reason: `This row has ${cells.length} cells, the header only ${plans.length}. A quote or separator is missing.`,
    }
  const addressPlan = plans.find((plan) => plan.target.to === 'address')
  const checked = checkAddress(addressPlan ? (cells[addressPlan.column] ?? '') : '')
  if (!checked.ok) return { ok: false, reason: addressProblems[checked.problem] }
  const entry: ImportEntry = {
    address: checked.address,
    normal: checked.normal,
    domain: checked.domain,
    values: {},
    tags: [],
    lists: new Map(),
    cautions: [],
  }
  for (const plan of plans) {
    const cell = (cells[plan.column] ?? '').trim()
    if (cell !== '') takeCell(entry, plan, cell, kinds)
    else if (options.clearEmpty && plan.target.to === 'field') entry.values[plan.target.key] = null
  }
  return { ok: true, entry }
}

function takeCell(
  entry: ImportEntry,
  plan: ColumnPlan,
  cell: string,
  kinds: ReadonlyMap<string, FieldKind>,
) {
  const target = plan.target
  switch (target.to) {
    case 'whole-name': {
      const { first, last } = splitName(cell.normalize('NFC'))
      if (first) entry.values.first_name = first
      if (last) entry.values.last_name = last
      return
    }
    case 'tags':
      entry.tags.push(...splitValues(cell, plan.separator ?? ','))
      return
    case 'list': {
      const says = readYesNo(cell)
      if (says === null) entry.cautions.push(unread(cell, plan, 'yes or no'))
      else entry.lists.set(target.listId, says)
      return
    }
    case 'field':
    case 'new-field': {
      const kind = kinds.get(target.key) ?? 'text'
      const value = readFieldValue(cell, kind, plan)
      if (value === undefined) entry.cautions.push(unread(cell, plan, nouns[kind]))
      else if (value !== null) entry.values[target.key] = value
      return
    }
    case 'address':
    case 'skip':
  }
}

const nouns: Record<FieldKind, string> = {
  text: 'a text',
  number: 'a number',
  date: 'a date',
  choice: 'a choice',
  choices: 'choices',
  yesno: 'yes or no',
  link: 'a link',
}

function unread(cell: string, plan: ColumnPlan, wanted: string): string {
  const shown = cell.length > 40 ? `${cell.slice(0, 39)}…` : cell
  return `“${shown}” in ${plan.header} is not ${wanted}; left empty.`
}
