import { pickWays } from '../picks'
import { blockNames, shownEntries, type Block, type Letter, type Row } from './document'
import { readFillIn } from './fill-ins'
import { plainInline } from './rich-text'

/** One difference between two states of a letter. `before` and `after` are words, where there are any. */
export interface LetterChange {
  what: 'added' | 'removed' | 'changed' | 'moved'
  /** Of what: "Subject", "Heading", "Row". */
  name: string
  blockId: string | null
  before?: string
  after?: string
}

/** What is different in `after`, from top to bottom. Nothing where both are the same. */
export function compareLetters(before: Letter, after: Letter): LetterChange[] {
  const changes: LetterChange[] = []
  for (const [key, name] of [
    ['subject', 'Subject'],
    ['previewText', 'Preview text'],
  ] as const)
    if (before[key] !== after[key])
      changes.push({ what: 'changed', name, blockId: null, before: before[key], after: after[key] })
  if (!same(before.document.style, after.document.style))
    changes.push({ what: 'changed', name: 'Look of the letter', blockId: null })
  const [old, now] = [placesOf(before.document.rows), placesOf(after.document.rows)]
  for (const [id, { block }] of now) {
    const was = old.get(id)
    if (!was)
      changes.push({ what: 'added', name: nameOf(block), blockId: id, after: wordsOf(block) })
    else if (!same(was.block, block))
      changes.push({
        what: 'changed',
        name: nameOf(block),
        blockId: id,
        before: wordsOf(was.block),
        after: wordsOf(block),
      })
  }
  for (const [id, { block }] of old)
    if (!now.has(id))
      changes.push({ what: 'removed', name: nameOf(block), blockId: id, before: wordsOf(block) })
  for (const id of movedBlocks(old, now))
    changes.push({
      what: 'moved',
      name: nameOf(now.get(id)!.block),
      blockId: id,
      after: wordsOf(now.get(id)!.block),
    })
  return [...changes, ...rowChanges(before.document.rows, after.document.rows)]
}

interface BlockPlace {
  block: Block
  rowId: string
  column: number
}

function placesOf(rows: readonly Row[]): Map<string, BlockPlace> {
  return new Map(
    rows.flatMap((row) =>
      row.columns.flatMap(({ blocks }, column) =>
        blocks.map((block): [string, BlockPlace] => [block.id, { block, rowId: row.id, column }]),
      ),
    ),
  )
}

/**
 * Blocks that stand elsewhere among those that are in both: not those that others were taken past, but the
 * fewest that had to be taken (all outside a longest run that kept its order).
 */
function movedBlocks(old: Map<string, BlockPlace>, now: Map<string, BlockPlace>): string[] {
  const order = [...old.keys()].filter((id) => now.has(id))
  const place = new Map(order.map((id, i) => [id, i]))
  const kept = [...now.keys()].filter((id) => old.has(id))
  const still = new Set(longestRising(kept.map((id) => place.get(id)!)).map((i) => order[i]!))
  return kept.filter((id) => {
    const [was, is] = [old.get(id)!, now.get(id)!]
    return !still.has(id) || was.column !== is.column || was.rowId !== is.rowId
  })
}

/** A longest rising subsequence (patience sorting; M. L. Fredman, 1975). */
function longestRising(numbers: readonly number[]): number[] {
  const tops: number[] = []
  const before: number[] = []
  numbers.forEach((n, i) => {
    let pile = tops.findIndex((top) => numbers[top]! >= n)
    if (pile < 0) pile = tops.length
    before[i] = pile > 0 ? tops[pile - 1]! : -1
    tops[pile] = i
  })
  const found: number[] = []
  for (let i = tops.at(-1) ?? -1; i >= 0; i = before[i]!) found.unshift(numbers[i]!)
  return found
}

/** Rows that are for others, look otherwise or have other columns. */
function rowChanges(before: readonly Row[], after: readonly Row[]): LetterChange[] {
  const old = new Map(before.map((row) => [row.id, row]))
  return after.flatMap((row): LetterChange[] => {
    const was = old.get(row.id)
    if (!was || same(withoutBlocks(was), withoutBlocks(row))) return []
    const first = row.columns.find(({ blocks }) => blocks[0])?.blocks[0]?.id ?? null
    return [{ what: 'changed', name: 'Row', blockId: first }]
  })
}

function withoutBlocks({ columns, ...row }: Row) {
  return { ...row, shares: columns.map(({ share }) => Math.round(share * 1_000)) }
}

function nameOf(block: Block): string {
  return blockNames[block.kind]
}

/** A block in words, as far as it has any. */
function wordsOf(block: Block): string {
  switch (block.kind) {
    case 'heading':
    case 'text':
    case 'quote':
    case 'footer':
      return plainInline(block.text, (e) => `[${readFillIn(e).path}]`)
    case 'picture':
    case 'film':
      return block.alt
    case 'button':
      return block.label
    case 'product':
      return [block.name, block.price].filter(Boolean).join(', ')
    case 'table':
      return block.cells.map((cells) => cells.join(' | ')).join('; ')
    case 'social':
      return block.links.map(({ name }) => name).join(', ')
    case 'contents':
      return block.title
    case 'code':
      return block.code
    case 'html':
      return block.html
    case 'picks':
      return `${block.many} by ${pickWays.find(({ key }) => key === block.by)!.name}`
    case 'feed':
      return shownEntries(block)
        .map(({ title }) => title)
        .join('; ')
    case 'divider':
    case 'space':
      return ''
  }
}

function same(a: unknown, b: unknown): boolean {
  return JSON.stringify(sorted(a)) === JSON.stringify(sorted(b))
}

/** With the keys of objects in order: the order in which they were set says nothing. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted)
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, inner]) => [key, sorted(inner)]),
  )
}
