import { addressProblems } from './address'
import { addressInCell } from './address-cell'
import { asksForOrder, type ColumnPlan } from './columns'
import { readDate } from './dates'
import {
  readFieldValue,
  showFieldValue,
  splitValues,
  type FieldKind,
  type FieldValue,
} from './fields'
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
  const checked = addressInCell(addressPlan ? (cells[addressPlan.column] ?? '') : '')
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
  if (checked.name !== '') takeName(entry, checked.name)
  return { ok: true, entry }
}

/** What a cell says by the plan of its column. */
type CellRead =
  | { values: Record<string, FieldValue> }
  | { tags: string[] }
  | { list: number; says: boolean }
  | { unread: string }
  | null

function readCell(plan: ColumnPlan, cell: string, kinds: ReadonlyMap<string, FieldKind>): CellRead {
  const target = plan.target
  switch (target.to) {
    case 'whole-name':
      return { values: namesOf(cell) }
    case 'tags':
      return { tags: splitValues(cell, plan.separator ?? ',') }
    case 'list': {
      const says = readYesNo(cell, plan.words)
      return says === null ? { unread: 'yes or no' } : { list: target.listId, says }
    }
    case 'field':
    case 'new-field': {
      const kind = kinds.get(target.key) ?? (target.to === 'new-field' ? target.kind : 'text')
      const value = readFieldValue(cell, kind, plan)
      if (value === undefined) return { unread: nouns[kind] }
      return value === null ? null : { values: { [target.key]: value } }
    }
    case 'address':
    case 'skip':
      return null
  }
}

function takeCell(
  entry: ImportEntry,
  plan: ColumnPlan,
  cell: string,
  kinds: ReadonlyMap<string, FieldKind>,
) {
  const read = readCell(plan, cell, kinds)
  if (!read) return
  if ('values' in read) Object.assign(entry.values, read.values)
  else if ('tags' in read) entry.tags.push(...read.tags)
  else if ('list' in read) entry.lists.set(read.list, read.says)
  else entry.cautions.push(unread(cell, plan, read.unread))
}

function namesOf(whole: string): Record<string, string> {
  const { first, last } = splitName(whole.normalize('NFC'))
  return { ...(first && { first_name: first }), ...(last && { last_name: last }) }
}

/** The name that stood beside the address counts where no column has one. */
function takeName(entry: ImportEntry, name: string) {
  if (entry.values.first_name === undefined && entry.values.last_name === undefined)
    Object.assign(entry.values, namesOf(name))
}

/** What a cell becomes, as people read it; `problem` where it can't be read. */
export interface CellShown {
  text: string
  problem: boolean
}

/** What a sample of a column becomes by its plan, to be shown beside it; null where the column is skipped. */
export function showCell(
  plan: ColumnPlan,
  cell: string,
  kinds: ReadonlyMap<string, FieldKind>,
): CellShown | null {
  if (plan.target.to === 'skip') return null
  if (plan.target.to === 'address') {
    const found = addressInCell(cell)
    return found.ok
      ? { text: found.address, problem: false }
      : { text: addressProblems[found.problem], problem: true }
  }
  if (
    asksForOrder(plan, (key) => kinds.get(key)) &&
    readDate(cell, 'dmy') !== readDate(cell, 'mdy')
  )
    return { text: 'day or month first?', problem: true }
  const read = readCell(plan, cell.trim(), kinds)
  if (!read) return { text: 'nothing', problem: false }
  if ('unread' in read) return { text: `not ${read.unread}; left empty`, problem: true }
  if ('list' in read) return { text: read.says ? 'joins' : 'does not join', problem: false }
  if ('tags' in read) return { text: read.tags.join(' · '), problem: false }
  const { first_name, last_name } = read.values
  if (plan.target.to === 'whole-name')
    return { text: `${showFieldValue(first_name)} | ${showFieldValue(last_name)}`, problem: false }
  const [value] = Object.values(read.values)
  return { text: Array.isArray(value) ? value.join(' · ') : showFieldValue(value), problem: false }
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
