import { rowOf, type Block, type Letter, type Row } from '../document'
import { hasFooter } from '../changes'

/**
 * A letter in another template: the template's rows and looks with the letter's words, pictures and links. Each
 * of the letter's blocks takes the place of the next one of its kind; what the template has no place for stands
 * where it stood, after what came before it. Rows that are for some readers only, linked to a stamp or of several
 * columns with rules of their own are carried over whole. What stays of the template is only what has no words
 * of its own: lines and spaces.
 */
export function inTemplate(letter: Letter, template: Letter): Letter {
  const placed = new Map<string, Block>()
  const leftOver = new Map<string | null, Row[]>()
  const slots = template.document.rows.flatMap(({ columns }, row) =>
    columns.flatMap(({ blocks }) => blocks.filter(isContent).map((block) => ({ block, row }))),
  )
  let last: string | null = null
  /** Only what stands further down, so that the order of the words stays. */
  let next = 0
  const leave = (row: Row) => {
    leftOver.set(last, [...(leftOver.get(last) ?? []), row])
    if (last === null) return
    // It comes under the whole row, so nothing more may come into that row.
    while (next < slots.length && slots[next]!.row === slots[next - 1]!.row) next++
  }
  for (const row of letter.document.rows) {
    if (isOfItsOwn(row)) {
      leave(row)
      continue
    }
    for (const block of row.columns.flatMap(({ blocks }) => blocks)) {
      if (!isContent(block)) continue
      const at = slots.findIndex((slot, n) => n >= next && slot.block.kind === block.kind)
      if (at >= 0) {
        const slot = slots[at]!.block
        placed.set(slot.id, inPlaceOf(slot, block))
        last = slot.id
        next = at + 1
      } else leave({ id: `r-${block.id}`, columns: [{ share: 1, blocks: [block] }] })
    }
  }
  const footer = letter.document.rows.flatMap((row) =>
    row.columns.flatMap(({ blocks }) =>
      blocks
        .filter(({ kind }) => kind === 'footer')
        .map((block): Row => ({ ...rowOf(block), ...(row.style ? { style: row.style } : {}) })),
    ),
  )
  const rows = template.document.rows.flatMap((row): Row[] => {
    if (hasFooter(row)) return []
    const columns = row.columns.map((column) => ({
      ...column,
      blocks: column.blocks.flatMap((block) =>
        isContent(block) ? (placed.get(block.id) ?? []) : block,
      ),
    }))
    const after = row.columns.flatMap(({ blocks }) =>
      blocks.flatMap(({ id }) => leftOver.get(id) ?? []),
    )
    const bare = columns.every(({ blocks }) => blocks.length === 0)
    const emptied = !columns.some(({ blocks }) => blocks.some(isContent)) && hasContent(row)
    return [...(bare || emptied ? [] : [{ ...row, columns }]), ...after]
  })
  const { style } = template.document
  const above = leftOver.get(null) ?? []
  const all = [...above, ...rows.filter(divides), ...footer]
  return {
    subject: letter.subject,
    previewText: letter.previewText,
    document: { version: 1, ...(style ? { style } : {}), rows: withOwnIds(all) },
  }
}

/** A block with the words of one and the place and look of another. */
function inPlaceOf(slot: Block, block: Block): Block {
  const { style: _mine, ...content } = block
  const look = {
    ...(slot.style ? { style: slot.style } : {}),
    ...('align' in slot ? { align: slot.align } : {}),
    ...('width' in slot ? { width: slot.width } : {}),
  }
  return { ...content, ...look } as Block
}

/** Whether a row must stay together. */
function isOfItsOwn(row: Row): boolean {
  const parts = [row, ...row.columns.flatMap(({ blocks }) => blocks)]
  return (
    row.stamp !== undefined ||
    (!hasFooter(row) && parts.some(({ shownTo, hidden }) => shownTo || hidden))
  )
}

function hasContent(row: Row): boolean {
  return row.columns.some(({ blocks }) => blocks.some(isContent))
}

/** A line or a space stands between things; not above them all, and not under another one. */
function divides(row: Row, at: number, rows: Row[]): boolean {
  return hasContent(row) || (at > 0 && hasContent(rows[at - 1]!))
}

function isContent({ kind }: Block): boolean {
  return kind !== 'divider' && kind !== 'space' && kind !== 'footer'
}

/** Rows and blocks with ids that are given once. */
function withOwnIds(rows: Row[]): Row[] {
  const seen = new Set<string>()
  const free = (id: string) => {
    let next = id
    while (seen.has(next)) next += 'x'
    seen.add(next)
    return next
  }
  // The letter's own ids come first, since comments hang on them.
  for (const { columns } of rows)
    for (const { blocks } of columns) for (const { id } of blocks) seen.add(id)
  const given = new Set<string>()
  return rows.map((row) => ({
    ...row,
    id: free(row.id),
    columns: row.columns.map((column) => ({
      ...column,
      blocks: column.blocks.map((block) => {
        const id = given.has(block.id) ? free(block.id) : block.id
        given.add(id)
        return { ...block, id }
      }),
    })),
  }))
}
