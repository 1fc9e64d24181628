import { checkAddress } from './address'
import { fieldKeyFor, type Field, type FieldKind } from './fields'
import { dateOrderOf, readNumber, readYesNo, type DateOrder } from './values'

/** What becomes of a column's cells. A new field has the key it will get. */
export type ColumnTarget =
  | { to: 'address' }
  | { to: 'whole-name' }
  | { to: 'field'; key: string }
  | { to: 'new-field'; key: string; name: string; kind: FieldKind }
  | { to: 'tags' }
  | { to: 'list'; listId: number }
  | { to: 'skip' }

/** How one column was understood, and what it was understood from. */
export interface ColumnPlan {
  column: number
  header: string
  target: ColumnTarget
  separator?: string
  dateOrder?: DateOrder
  decimal?: '.' | ','
  /** Up to three different values, as they stand in the file. */
  samples: string[]
}

/** What the account already has that a column may hold. */
export interface KnownPeople {
  fields: Field[]
  lists: { id: number; name: string }[]
}

const headers = {
  address: /^(e ?)?mail( address)?$|^(e ?mail) ?(address|adresse)?$|^address$/,
  first: /^(first|given|fore) ?names?$/,
  last: /^(last|family|sur) ?names?$/,
  whole: /^(full |whole )?name$|^contact$/,
  tags: /^(tags?|labels?|groups?|categories)$/,
  number: /\b(no|nr|id|ref|number|code|phone|postcode|zip)\b/,
}

/**
 * Understands the columns of a file from their names and their contents.
 * Exactly one column becomes the address, the one with the most addresses in it, if any has.
 */
export function understandColumns(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  known: KnownPeople,
): ColumnPlan[] {
  const values = header.map((_, column) =>
    rows
      .slice(0, 2_000)
      .map((row) => (row[column] ?? '').trim())
      .filter((cell) => cell !== ''),
  )
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
    if (understood.target.to === 'new-field') taken.add(understood.target.key)
    return understood
  })
}

function addressColumn(header: readonly string[], values: readonly string[][]): number {
  let best = -1
  let most = 0
  values.forEach((cells, column) => {
    const good = cells.length ? share(cells, (cell) => checkAddress(cell).ok) : 0
    const named = headers.address.test(plainName(header[column]!))
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
  const name = plainName(plan.header)
  if (cells.length === 0) return plan
  if (headers.first.test(name)) return { ...plan, target: { to: 'field', key: 'first_name' } }
  if (headers.last.test(name)) return { ...plan, target: { to: 'field', key: 'last_name' } }
  if (headers.whole.test(name)) return { ...plan, target: { to: 'whole-name' } }
  if (headers.tags.test(name)) {
    return { ...plan, target: { to: 'tags' }, separator: separatorOf(cells) ?? ',' }
  }
  const yesNo = share(cells, (cell) => readYesNo(cell) !== null) > 0.9
  const list = known.lists.find((candidate) => plainName(candidate.name) === name)
  if (list && yesNo) return { ...plan, target: { to: 'list', listId: list.id } }
  const shape = shapeOf(name, cells, yesNo)
  const field = known.fields.find((candidate) => plainName(candidate.name) === name)
  if (field) return { ...plan, ...shape.hints, target: { to: 'field', key: field.key } }
  const target: ColumnTarget = {
    to: 'new-field',
    key: fieldKeyFor(plan.header, taken),
    name: plan.header,
    kind: shape.kind,
  }
  return { ...plan, ...shape.hints, target }
}

interface Shape {
  kind: FieldKind
  hints: Pick<ColumnPlan, 'dateOrder' | 'decimal' | 'separator'>
}

/** The kind of field a column's values fit, and how to read them. */
function shapeOf(name: string, cells: readonly string[], yesNo: boolean): Shape {
  if (yesNo) return { kind: 'yesno', hints: {} }
  const { order, dates } = dateOrderOf(cells)
  if (dates / cells.length > 0.9) return { kind: 'date', hints: { dateOrder: order } }
  if (!headers.number.test(name)) {
    const commas = share(cells, (cell) => /,\d{1,2}$/.test(cell)) > 0.5
    const decimal = commas ? ',' : '.'
    if (share(cells, (cell) => readNumber(cell, decimal) !== null) > 0.95)
      return { kind: 'number', hints: { decimal } }
  }
  if (share(cells, (cell) => /^https?:\/\//i.test(cell)) > 0.9) return { kind: 'link', hints: {} }
  const separator = separatorOf(cells)
  if (separator) return { kind: 'choices', hints: { separator } }
  return { kind: 'text', hints: {} }
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

function share(cells: readonly string[], is: (cell: string) => boolean): number {
  return cells.length === 0 ? 0 : cells.filter(is).length / cells.length
}

/** A column's name for comparing: letters and figures in lower case, words apart by one space. */
function plainName(name: string): string {
  return name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
}
