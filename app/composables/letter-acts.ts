import type { Ref } from 'vue'
import {
  duplicateBlock,
  duplicateRow,
  insertBlock,
  insertRow,
  moveBlock,
  moveRow,
  moveRows,
  newBlock,
  removeBlock,
  setColumns,
  setShares,
  stampRow,
  updateBlock,
  updateRow,
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

  const changeDocument = (document: LetterDocument, kind: string) =>
    letter.value &&
    document !== letter.value.document &&
    change({ ...letter.value, document }, kind)

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
      changeDocument(
        typeof place === 'number'
          ? insertRow(document, place, block)
          : insertBlock(document, place, block),
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
