import { cleanDocument, copyOfRow, hasFooter, type Row } from '~~/core/letters'

/** Where the copied rows wait, for this letter or another one. */
const KEPT = 'copied-row'

/**
 * The keys of the letter's paper, for the block that is chosen and not written in: Alt with an arrow moves it,
 * Ctrl D copies it below, Delete takes it away; Ctrl C, X, V copy, cut and paste its row, also into another letter;
 * all of it for all that are chosen together.
 * Escape stops writing and keeps the block chosen.
 */
export function useLetterKeys() {
  const store = useMailing()
  const presence = usePresence()
  useKeys((event) => {
    if (!store.canChange || !store.letter) return
    if (store.chosen && presence.whoIsIn(store.chosen)) return
    const { key } = event
    if (isWriting(event)) {
      if (key === 'Escape') (event.target as HTMLElement).blur()
      else if (event.altKey && (key === 'ArrowUp' || key === 'ArrowDown')) move(event)
      return
    }
    const ctrl = event.ctrlKey || event.metaKey
    if (event.altKey && (key === 'ArrowUp' || key === 'ArrowDown')) return move(event)
    if (ctrl && key === 'v') return paste(event)
    if (!store.chosen) return
    if (key === 'Delete' || key === 'Backspace')
      return done(event, () => store.remove(...store.all))
    if (ctrl && key === 'd') return done(event, () => store.copyBlocks(store.all))
    if (ctrl && (key === 'c' || key === 'x') && !String(getSelection() ?? ''))
      copy(event, key === 'x')
  })

  function done(event: KeyboardEvent, act: () => void) {
    event.preventDefault()
    act()
  }

  /** Up or down among the rows; within a row of several blocks, in its column. */
  function move(event: KeyboardEvent) {
    const by = event.key === 'ArrowUp' ? -1 : 1
    const { chosen, chosenRow: row } = store
    if (!chosen || !row) return
    const { rows } = store.letter!.document
    const index = rows.indexOf(row)
    const column = row.columns.findIndex(({ blocks }) => blocks.some(({ id }) => id === chosen))
    const at = row.columns[column]!.blocks.findIndex(({ id }) => id === chosen)
    const alone = row.columns.flatMap(({ blocks }) => blocks).length === 1
    done(event, () => {
      if (store.also.length) store.moveChosen(by)
      else if (!alone) store.moveTo(chosen, { rowId: row.id, column, at: Math.max(0, at + by) })
      else if (index + by >= 0 && index + by < rows.length) store.move(index, index + by)
    })
  }

  function copy(event: KeyboardEvent, cut: boolean) {
    const holds = (row: Row) =>
      row.columns.some(({ blocks }) => blocks.some(({ id }) => store.all.includes(id)))
    const rows = store.letter!.document.rows.filter((row) => holds(row) && !hasFooter(row))
    if (!rows.length) return
    done(event, () => {
      localStorage.setItem(KEPT, JSON.stringify(rows))
      if (cut) store.setRows(store.letter!.document.rows.filter((row) => !rows.includes(row)))
      useNotices().say(
        cut
          ? 'Cut. Ctrl V puts it in, also into another letter.'
          : 'Copied. Ctrl V puts it in, also into another letter.',
      )
    })
  }

  /** Puts the copied rows under the chosen one, or before the footer. What was kept is read as what comes from outside. */
  function paste(event: KeyboardEvent) {
    const kept = readKept()
    if (!kept.length) return
    done(event, () => {
      const rows = [...store.letter!.document.rows]
      const at = store.chosenRow ? rows.indexOf(store.chosenRow) + 1 : rows.length - 1
      const pasted = kept.map((row) => copyOfRow(row, store.newId))
      rows.splice(Math.max(0, at), 0, ...pasted)
      store.setRows(rows)
      store.chosen = pasted[0]!.columns.find(({ blocks }) => blocks[0])?.blocks[0]?.id ?? null
    })
  }
}

function readKept(): Row[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEPT) ?? '[]')
    return cleanDocument({ version: 1, rows: Array.isArray(kept) ? kept : [kept] })?.rows ?? []
  } catch {
    return []
  }
}
