import {
  rowOf,
  type Block,
  type Column,
  type Letter,
  type LetterDocument,
  type Row,
} from './document'
import { hasFooter } from './changes'
import { isSame } from './same'

/**
 * Two people's changes to one letter, joined: what only one of them changed is as they made it. Where both
 * changed the same property of the same block, mine stands, and the block is named as contested; theirs is in
 * the history. What one changed is not lost because the other deleted it.
 */
export function joinLetters(
  base: Letter,
  mine: Letter,
  theirs: Letter,
): { letter: Letter; contested: string[] } {
  const contested: string[] = []
  const pick = <T>(b: T, m: T, t: T, id = 'letter') => {
    const { value, both } = picked(b, m, t)
    if (both && !contested.includes(id)) contested.push(id)
    return value
  }
  const letter = {
    subject: pick(base.subject, mine.subject, theirs.subject),
    previewText: pick(base.previewText, mine.previewText, theirs.previewText),
    document: joinDocuments(base.document, mine.document, theirs.document, pick),
  }
  return { letter, contested }
}

type Pick3 = <T>(base: T, mine: T, theirs: T, id?: string) => T

/** What of three holds: the one that differs from the base, and mine where both do. */
function picked<T>(base: T, mine: T, theirs: T): { value: T; both: boolean } {
  if (isSame(mine, base)) return { value: theirs, both: false }
  return { value: mine, both: !isSame(theirs, base) && !isSame(theirs, mine) }
}

function joinDocuments(
  base: LetterDocument,
  mine: LetterDocument,
  theirs: LetterDocument,
  pick: Pick3,
): LetterDocument {
  const blocks = joinParts(blockMap(base), blockMap(mine), blockMap(theirs), pick)
  const [b, m, t] = [rowMap(base), rowMap(mine), rowMap(theirs)]
  const rows = joinParts(b, m, t, pick)
  // A row that one deleted stays for what the other put or changed in it.
  for (const [side, other] of [
    [mine, theirs],
    [theirs, mine],
  ] as const)
    for (const row of other.rows)
      if (!rows.has(row.id) && blocksIn(row).some((id) => blocks.has(id) && !holds(side, id)))
        rows.set(row.id, rowMap(other).get(row.id)!)
  const order = joinOrder(ids(base.rows), ids(mine.rows), ids(theirs.rows), (id) => rows.has(id))
  const joined = order.map((id): Row => {
    const [b, m, t] = [base, mine, theirs].map((one) => one.rows.find((row) => row.id === id))
    return {
      ...rows.get(id)!,
      columns: joinColumns(b?.columns, m?.columns, t?.columns, (block) => blocks.has(block), pick),
    } as Row
  })
  const places = placesOf(base, mine, theirs, joined)
  const seen = new Set<string>()
  const whole = (id: string) => blocks.get(id) as unknown as Block
  const filled = joined.map((row) => ({
    ...row,
    columns: row.columns.map((column, c) => ({
      ...column,
      blocks: column.blocks.flatMap(({ id }) => {
        if (places.get(id) !== `${row.id} ${c}` || seen.has(id)) return []
        seen.add(id)
        return [whole(id)]
      }),
    })),
  }))
  // What found no place, because both rebuilt what it stood in, gets a row of its own.
  const lost = [...blocks.keys()].filter((id) => !seen.has(id)).map((id) => rowOf(whole(id)))
  const all = [...filled, ...lost].filter(({ columns }) => columns.some((one) => one.blocks.length))
  const style = pick(base.style, mine.style, theirs.style)
  const atEnd = [mine, theirs].every((one) => one.rows.length > 0 && hasFooter(one.rows.at(-1)!))
  return { version: 1, ...(style ? { style } : {}), rows: atEnd ? footerLast(all) : all }
}

type Parts = ReadonlyMap<string, Record<string, unknown>>

/** Rows or blocks by id, property by property. A part that one deleted stays where the other changed it. */
function joinParts(base: Parts, mine: Parts, theirs: Parts, pick: Pick3) {
  const joined = new Map<string, Record<string, unknown>>()
  for (const id of new Set([...mine.keys(), ...theirs.keys()])) {
    const [b, m, t] = [base.get(id), mine.get(id), theirs.get(id)]
    if (!m || !t) {
      const left = (m ?? t)!
      if (!b || !isSame(left, b)) joined.set(id, left)
      continue
    }
    const part: Record<string, unknown> = {}
    for (const key of new Set([...Object.keys(t), ...Object.keys(m)])) {
      const value = pick(b?.[key], m[key], t[key], id)
      if (value !== undefined) part[key] = value
    }
    joined.set(id, part)
  }
  return joined
}

/** The order of whoever changed it, mine where both did, with what the other added put after what it stands after there. */
function joinOrder(
  base: string[],
  mine: string[],
  theirs: string[],
  stays: (id: string) => boolean,
): string[] {
  const among = (order: string[], others: string[]) => order.filter((id) => others.includes(id))
  const moved = (order: string[]) => !isSame(among(order, base), among(base, order))
  const [first, second] = moved(theirs) && !moved(mine) ? [theirs, mine] : [mine, theirs]
  const order = first.filter(stays)
  second.forEach((id, at) => {
    if (order.includes(id) || !stays(id)) return
    const before = second.slice(0, at).findLast((one) => order.includes(one))
    order.splice(before === undefined ? 0 : order.indexOf(before) + 1, 0, id)
  })
  return order
}

/** The columns of a row, with blocks that are only ids yet. */
function joinColumns(
  base: Column[] | undefined,
  mine: Column[] | undefined,
  theirs: Column[] | undefined,
  stays: (id: string) => boolean,
  pick: Pick3,
): Column[] {
  const known = (column: Column) => ({
    ...column,
    blocks: column.blocks.filter(({ id }) => stays(id)),
  })
  if (!mine || !theirs) return (mine ?? theirs)!.map(known)
  if (mine.length !== theirs.length || (base && base.length !== mine.length)) {
    const one = base && mine.length === base.length ? theirs : mine
    const other = one === mine ? theirs : mine
    // What only the other has stays, in the last column that there is.
    const there = one.flatMap(({ blocks }) => ids(blocks))
    const more = other.flatMap(({ blocks }) => blocks.filter(({ id }) => !there.includes(id)))
    const last = one.length - 1
    return one.map((column, c) =>
      known(c === last ? { ...column, blocks: [...column.blocks, ...more] } : column),
    )
  }
  // Shares sum to 1, so they are taken from one side only.
  const shares = (columns: Column[]) => columns.map(({ share }) => share)
  const share = pick(base && shares(base), shares(mine), shares(theirs)) ?? shares(mine)
  return mine.map((column, c) => {
    const order = joinOrder(
      ids(base?.[c]?.blocks ?? []),
      ids(column.blocks),
      ids(theirs[c]!.blocks),
      stays,
    )
    return { share: share[c]!, blocks: order.map((id) => ({ id }) as Block) }
  })
}

/** Where each block stands: where I moved it to, else where they have it. */
function placesOf(base: LetterDocument, mine: LetterDocument, theirs: LetterDocument, rows: Row[]) {
  const [b, m, t] = [base, mine, theirs].map((one) => columnOfBlocks(one.rows))
  const offered = new Map<string, string[]>()
  for (const row of rows)
    row.columns.forEach(({ blocks }, c) =>
      blocks.forEach(({ id }) => offered.set(id, [...(offered.get(id) ?? []), `${row.id} ${c}`])),
    )
  return new Map(
    [...offered].map(([id, places]) => {
      const wanted =
        m!.has(id) && m!.get(id) !== b!.get(id) ? m!.get(id) : (t!.get(id) ?? m!.get(id))
      return [id, places.includes(wanted!) ? wanted! : places[0]!]
    }),
  )
}

function columnOfBlocks(rows: Row[]): Map<string, string> {
  return new Map(
    rows.flatMap((row) =>
      row.columns.flatMap(({ blocks }, c) =>
        blocks.map(({ id }) => [id, `${row.id} ${c}`] as const),
      ),
    ),
  )
}

function blockMap({ rows }: LetterDocument): Parts {
  const blocks = rows.flatMap(({ columns }) => columns.flatMap((column) => column.blocks))
  return new Map(blocks.map((block) => [block.id, block as unknown as Record<string, unknown>]))
}

function rowMap({ rows }: LetterDocument): Parts {
  return new Map(
    rows.map(({ columns: _columns, ...row }) => [row.id, row as Record<string, unknown>]),
  )
}

/** Two that added rows at the end must not push the way out up. */
function footerLast(rows: Row[]): Row[] {
  return rows.toSorted((a, b) => Number(hasFooter(a)) - Number(hasFooter(b)))
}

const blocksIn = (row: Row) => row.columns.flatMap(({ blocks }) => ids(blocks))
const holds = ({ rows }: LetterDocument, id: string) =>
  rows.some((row) => blocksIn(row).includes(id))
const ids = (parts: readonly { id: string }[]) => parts.map(({ id }) => id)
