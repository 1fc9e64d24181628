import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { interpretRow, understandFile, type FieldKind } from '../core/people'
import type { Database } from '../database'
import {
  type UnderstoodRow,
  importWriter,
  createImport,
  endImport,
  importById,
} from '../database/imports'
import { addField, readFields, listsWithCounts } from '../database/people'

/** The import that went badly: the sheet of a festival's desk, with its total line and blanks, as it was read. */
export function importBadly(db: Database, listId: number, at: number) {
  const bytes = readFileSync(join(filesFolder(), 'festival-desk.csv'))
  const file = understandFile(bytes, bytes.length, {
    fields: readFields(db),
    lists: listsWithCounts(db),
  })
  if ('problem' in file) throw new Error(file.message)
  for (const { target } of file.plans) if (target.to === 'new-field') addField(db, target)
  const kinds = new Map<string, FieldKind>(readFields(db).map((field) => [field.key, field.kind]))
  const id = createImport(
    db,
    {
      name: 'festival-desk.csv',
      path: '',
      size: bytes.length,
      encoding: file.encoding,
      delimiter: file.delimiter,
      plans: file.plans,
      listId,
      statement: 'Asked for offers at the festival desk.',
    },
    at,
  )
  const rows = file.rows.map((cells, i): UnderstoodRow => {
    const outcome = interpretRow(cells, file.plans, kinds)
    return outcome.ok
      ? { row: i + 2, entry: outcome.entry, cells }
      : { row: i + 2, refused: outcome.reason, cells }
  })
  importWriter(db, importById(db, id)!).write(rows, at)
  endImport(db, id, 'done', at)
}

/** The demo's own files, found from the sources as well as from the build. */
function filesFolder(): string {
  let folder = dirname(fileURLToPath(import.meta.url))
  while (!existsSync(join(folder, 'demo', 'files'))) folder = dirname(folder)
  return join(folder, 'demo', 'files')
}
