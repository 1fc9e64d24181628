import { addressInCell } from './address-cell'
import { dateOrderOf, type DateOrder } from './dates'
import { fieldKeyFor, type Field, type FieldKind } from './fields'
import { namedColumn, plainName, type NamedColumn } from './headers'
import { isFiguresOnly, readNumber, readYesNo, type YesNoWords } from './values'

/** What becomes of a column's cells. A new field has the key it will get. */
export type ColumnTarget =
  | { to: 'address' }
  | { to: 'whole-name' }
  | { to: 'field'; key: string }
  | { to: 'new-field'; key: string; name: string; kind: FieldKind }
  | { to: 'tags' }
  | { to: 'list'; listId: number }
  | { to: 'skip' }

/** How the text of a column's cells is read. */
export interface Reading {
  separator?: string
  /** Missing where dates read as different days in several orders: it has to be chosen. */
  dateOrder?: DateOrder
  decimal?: '.' | ','
  /** What says yes and no; missing: the usual words. */
  words?: YesNoWords
}

/** How one column was understood, and what it was understood from. */
export interface ColumnPlan extends Reading {
  column: number
  header: string
  target: ColumnTarget
  /** Up to three different values, as they stand in the file. */
  samples: string[]
}

/** What the account already has that a column may hold. */
export interface KnownPeople {
  fields: Field[]
  lists: { id: number; name: string }[]
}

/** Rows from which a column is understood. */
const ROWS_LOOKED_AT = 2_000

/**
 * Understands the columns of a file from their names and their contents. Exactly one column becomes the address, the one
 * with the most addresses in it, if any has. `named`: false where the file has no header; what is then not known by its
 * contents is skipped, and not made a field without a name.
 */
export function understandColumns(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  known: KnownPeople,
  { named = true } = {},
): ColumnPlan[] {
  const values = header.map((_, column) => cellsOf(rows, column))
  const address = addressColumn(header, values)
  const taken = new Set(known.fields.map((field) => field.key))
  return header.map((name, column) => {
    const plan: ColumnPlan = {
      column,
      header: name || `Column ${column + 1}`,
      target: { to: 'skip' },
      samples: [...new Set(values[column])].slice(0, 3),
    }
    if (column === address) return { ...plan, target: { to: 'address' } }
    const understood = understandColumn(plan, values[column]!, known, taken)
    if (understood.target.to !== 'new-field') return understood
    if (!named) return plan
    taken.add(understood.target.key)
    return understood
  })
}

/** The filled cells of a column that it is understood from, without the spaces around them. */
export function cellsOf(rows: readonly (readonly string[])[], column: number): string[] {
  return rows
    .slice(0, ROWS_LOOKED_AT)
    .map((row) => (row[column] ?? '').trim())
    .filter((cell) => cell !== '')
}

/** How cells are best read as values of a kind; for a column whose target was chosen, too. */
export function readingFor(
  target: ColumnTarget,
  cells: readonly string[],
  kindOf: (key: string) => FieldKind | undefined,
): Reading {
  if (target.to === 'tags') return { separator: separatorOf(cells) ?? separatorIn(cells) }
  if (target.to !== 'field' && target.to !== 'new-field') return {}
  const kind = target.to === 'new-field' ? target.kind : kindOf(target.key)
  switch (kind) {
    case 'date': {
      const { order, ambiguous } = dateOrderOf(cells, true)
      return ambiguous ? {} : { dateOrder: order }
    }
    case 'number':
      return { decimal: decimalOf(cells) }
    case 'choices':
      return { separator: separatorOf(cells) ?? separatorIn(cells) }
    default:
      return {}
  }
}

/** Whether a column holds dates and nobody has said in which order they are to be read. */
export function asksForOrder(
  { target, dateOrder }: ColumnPlan,
  kindOf: (key: string) => FieldKind | undefined,
): boolean {
  if (dateOrder || (target.to !== 'field' && target.to !== 'new-field')) return false
  return (target.to === 'new-field' ? target.kind : kindOf(target.key)) === 'date'
}

/** Whether somebody joins a list by what the plans do with a file, so that there has to be a statement of consent. */
export function subscribes(plans: readonly ColumnPlan[], listId: number | null): boolean {
  return listId !== null || plans.some(({ target }) => target.to === 'list')
}

function addressColumn(header: readonly string[], values: readonly string[][]): number {
  let best = -1
  let most = 0
  values.forEach((cells, column) => {
    const good = cells.length ? share(cells, (cell) => addressInCell(cell).ok) : 0
    const named = namedColumn(header[column]!).is === 'address'
    const score = named ? good * 1.5 : good
    // A column that is called so may be mostly wrong: its rows are refused one by one.
    if (score > most && (named || good >= 0.5)) [best, most] = [column, score]
  })
  return best
}

function understandColumn(
  plan: ColumnPlan,
  cells: readonly string[],
  known: KnownPeople,
  taken: ReadonlySet<string>,
): ColumnPlan {
  const named = namedColumn(plan.header)
  if (cells.length === 0) return plan
  if (named.is === 'first') return { ...plan, target: { to: 'field', key: 'first_name' } }
  if (named.is === 'last') return { ...plan, target: { to: 'field', key: 'last_name' } }
  if (named.is === 'whole') return { ...plan, target: { to: 'whole-name' } }
  const kindOf = (key: string) => known.fields.find((field) => field.key === key)?.kind
  const goesTo = (target: ColumnTarget): ColumnPlan => ({
    ...plan,
    ...readingFor(target, cells, kindOf),
    target,
  })
  if (named.is === 'tags') return goesTo({ to: 'tags' })
  const name = plainName(plan.header)
  const yesNo = share(cells, (cell) => readYesNo(cell) !== null) > 0.9
  const list = known.lists.find((candidate) => plainName(candidate.name) === name)
  if (list && yesNo) return goesTo({ to: 'list', listId: list.id })
  const called = (names: readonly string[]) =>
    known.fields.find((candidate) => names.includes(plainName(candidate.name)))
  const field = called([name]) ?? called(named.synonyms ?? [])
  if (field) return goesTo({ to: 'field', key: field.key })
  return goesTo({
    to: 'new-field',
    key: fieldKeyFor(plan.header, taken),
    name: plan.header,
    kind: kindFor(named, cells, yesNo),
  })
}

/** The kind of field that a column's values fit. */
function kindFor(named: NamedColumn, cells: readonly string[], yesNo: boolean): FieldKind {
  if (named.values === 'text') return 'text'
  if (yesNo) return 'yesno'
  if (dateOrderOf(cells, named.values === 'date').dates / cells.length > 0.9) return 'date'
  const decimal = decimalOf(cells)
  if (
    !cells.some(isFiguresOnly) &&
    share(cells, (cell) => readNumber(cell, decimal) !== null) > 0.95
  )
    return 'number'
  if (share(cells, (cell) => /^https?:\/\//i.test(cell)) > 0.9) return 'link'
  return separatorOf(cells) ? 'choices' : 'text'
}

/** The decimal mark under which more of the cells are numbers. */
function decimalOf(cells: readonly string[]): '.' | ',' {
  const numbers = (decimal: '.' | ',') =>
    cells.filter((cell) => readNumber(cell, decimal) !== null).length
  return numbers(',') > numbers('.') ? ',' : '.'
}

/**
 * The sign that separates several values in a cell: one that stands in a tenth of the cells and
 * leaves few different parts. Running text has commas too, but hardly ever the same parts twice.
 */
function separatorOf(cells: readonly string[]): string | null {
  for (const separator of ['|', ';', ',', '+']) {
    if (share(cells, (cell) => cell.includes(separator)) < 0.1) continue
    const parts = cells.flatMap((cell) => cell.split(separator).map((part) => part.trim()))
    const different = new Set(parts)
    if (
      different.size <= Math.max(12, parts.length / 20) &&
      !parts.some((part) => part.length > 40)
    )
      if (new Set(cells).size > different.size) return separator
  }
  return null
}

/** For cells that are known to hold several values: a sign that hardly stands in one, where there is one. */
function separatorIn(cells: readonly string[]): string {
  return ['|', ';'].find((sign) => cells.some((cell) => cell.includes(sign))) ?? ','
}

function share(cells: readonly string[], is: (cell: string) => boolean): number {
  return cells.length === 0 ? 0 : cells.filter(is).length / cells.length
}
