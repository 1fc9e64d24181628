import type { Ref } from 'vue'
import {
  blocksOf,
  duplicateBlock,
  duplicateRow,
  footerLast,
  insertBlock,
  insertRow,
  isEmptyText,
  moveBlock,
  moveRow,
  moveRows,
  newBlock,
  removeBlock,
  rowOfBlock,
  setColumns,
  setShares,
  stampRow,
  updateBlock,
  updateRow,
  type Block,
  type BlockChange,
  type BlockKind,
  type Letter,
  type LetterDocument,
  type Place,
  type Row,
  type StampContent,
} from '~~/core/letters'

/** The open letter, and what of it is chosen. */
interface Open {
  letter: Ref<Letter | null>
  chosen: Ref<string | null>
  also: Ref<string[]>
  /** The block that was inserted last. */
  inserted: Ref<string | null>
}

/**
 * What one does with the open letter: each act is one change, handed to `change` with a word for its kind;
 * changes of one kind in quick succession are one step of undo.
 */
export function letterActs(
  { letter, chosen, also, inserted }: Open,
  change: (next: Letter, kind: string) => void,
) {
  let ids = 0
  const newId = () => `n${Date.now().toString(36)}${(ids++).toString(36)}`

  const changeDocument = (wanted: LetterDocument, kind: string) => {
    if (!letter.value) return
    const { document: before } = letter.value
    const document = footerLast(wanted)
    const isSame =
      document.style === before.style &&
      document.rows.length === before.rows.length &&
      document.rows.every((row, i) => row === before.rows[i])
    // Nothing is no step of undo, as where a block would go below the footer.
    if (!isSame) change({ ...letter.value, document }, kind)
  }
  /** The text in which "/" was pressed, which what is chosen then stands in for where it is empty. */
  let slashed: string | null = null
  const withoutSlashed = (document: LetterDocument) => {
    const block = blocksOf(document).find(({ id }) => id === slashed)
    slashed = null
    return block && 'text' in block && block.kind !== 'footer' && isEmptyText(block.text)
      ? removeBlock(document, block.id)
      : document
  }

  return {
    newId,
    setSubject: (subject: string) =>
      letter.value && change({ ...letter.value, subject }, 'subject'),
    setPreviewText: (previewText: string) =>
      letter.value && change({ ...letter.value, previewText }, 'preview'),
    update: (id: string, to: BlockChange) =>
      letter.value &&
      changeDocument(
        updateBlock(letter.value.document, id, to),
        `block ${id} ${Object.keys(to).join()}`,
      ),
    updateRow: (id: string, to: Parameters<typeof updateRow>[2]) =>
      letter.value &&
      changeDocument(
        updateRow(letter.value.document, id, to),
        `row ${id} ${Object.keys(to).join()}`,
      ),
    setStyle: (style: LetterDocument['style']) => {
      if (!letter.value) return
      const { style: _before, ...document } = letter.value.document
      changeDocument(style ? { ...document, style } : document, 'style')
    },
    setColumns: (id: string, many: number) =>
      letter.value && changeDocument(setColumns(letter.value.document, id, many), `columns ${id}`),
    setShares: (id: string, shares: readonly number[]) =>
      letter.value && changeDocument(setShares(letter.value.document, id, shares), `shares ${id}`),
    /** Takes rows over in another order, or with blocks moved between them. */
    setRows: (rows: Row[]) =>
      letter.value &&
      changeDocument(
        {
          ...letter.value.document,
          rows: rows.filter(({ columns }) => columns.some(({ blocks }) => blocks.length)),
        },
        `rows ${Date.now()}`,
      ),
    /** A row linked to a stamp. */
    insertStamp(at: number, stamp: { id: number; content: StampContent }) {
      if (!letter.value) return
      const row = stampRow(newId(), stamp.id, stamp.content)
      const { document } = letter.value
      const rows = [...document.rows.slice(0, at), row, ...document.rows.slice(at)]
      changeDocument({ ...document, rows }, `insert ${row.id}`)
      chosen.value = row.columns.flatMap(({ blocks }) => blocks)[0]?.id ?? null
    },
    /** A row put in the place of the one with its id. */
    replaceRow(row: Row) {
      if (!letter.value) return
      const { document } = letter.value
      const rows = document.rows.map((one) => (one.id === row.id ? row : one))
      changeDocument({ ...document, rows }, `row ${row.id} ${Date.now()}`)
    },
    /** A new block in a row of its own, or in a column. */
    insert(place: number | Place, kind: BlockKind) {
      if (!letter.value) return
      const block = newBlock(kind, newId())
      const { document } = letter.value
      const put =
        typeof place === 'number'
          ? insertRow(document, place, block)
          : insertBlock(document, place, block)
      changeDocument(withoutSlashed(put), `insert ${block.id}`)
      chosen.value = block.id
      inserted.value = block.id
    },
    /** What is inserted next takes the place of this text, where that is empty. */
    slashIn: (id: string | null) => (slashed = id),
    /** A new block under another: in a row of its own, or in the other's column. */
    putBelow(id: string, kind: BlockKind, values: BlockChange = {}) {
      const document = letter.value?.document
      const row = document && rowOfBlock(document, id)
      if (!document || !row) return
      const column = row.columns.findIndex(({ blocks }) => blocks.some((one) => one.id === id))
      const at = row.columns[column]!.blocks.findIndex((one) => one.id === id) + 1
      const alone = row.columns.length === 1 && row.columns[0]!.blocks.length === at
      const block = { ...newBlock(kind, newId()), ...values } as Block
      changeDocument(
        alone
          ? insertRow(document, document.rows.indexOf(row) + 1, block)
          : insertBlock(document, { rowId: row.id, column, at }, block),
        `insert ${block.id}`,
      )
      chosen.value = block.id
      inserted.value = block.id
    },
    moveTo: (id: string, place: Place) =>
      letter.value &&
      changeDocument(moveBlock(letter.value.document, id, place), `move ${Date.now()}`),
    /** Copies of blocks, each under its own; one step. */
    copyBlocks: (ids: readonly string[]) =>
      letter.value &&
      changeDocument(
        ids.reduce((document, id) => duplicateBlock(document, id, newId), letter.value.document),
        `copy ${Date.now()}`,
      ),
    remove(...ids: string[]) {
      if (letter.value)
        changeDocument(ids.reduce(removeBlock, letter.value.document), `remove ${ids.join()}`)
      chosen.value = null
      also.value = []
    },
    /** Every row of which a block is chosen, by one up or down; they stay together. */
    moveChosen(by: 1 | -1) {
      if (!letter.value || !chosen.value) return
      const ids = [chosen.value, ...also.value]
      changeDocument(moveRows(letter.value.document, ids, by), `move ${Date.now()}`)
    },
    move: (from: number, to: number) =>
      letter.value &&
      changeDocument(moveRow(letter.value.document, from, to), `move ${Date.now()}`),
    duplicate: (index: number) =>
      letter.value &&
      changeDocument(duplicateRow(letter.value.document, index, newId), `duplicate ${Date.now()}`),
  }
}
