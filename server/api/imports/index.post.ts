import { open, stat } from 'node:fs/promises'
import { join } from 'node:path'
import {
  asksForOrder,
  dateOrders,
  fieldKinds,
  previewBytes,
  subscribes,
  understandFile,
  type ColumnPlan,
  type DateOrder,
  type FieldKind,
  type YesNoWords,
} from '~~/core/people'
import { transact } from '~~/database'
import { createImport, updateImport, rememberMapping } from '~~/database/imports'
import { addJob } from '~~/database/jobs'
import { readFields, listById, readLists } from '~~/database/people'
import { importInput } from '~~/shared/people-inputs'

/** Asks the engine to import a file, or first only to count what that would do, with the columns as the user wants them. */
export default defineEventHandler(async (event) => {
  const input = await readInput(event, importInput)
  const { db, clock, data } = satchel()
  const path = join(data, 'imports', input.file)
  const head = await readHead(path)
  if (!head) throw refused('The file is gone. Choose it again.')
  const fields = readFields(db)
  const understood = understandFile(
    head.bytes,
    head.size,
    { fields, lists: readLists(db) },
    { encoding: input.encoding, delimiter: input.delimiter, headerRow: input.headerRow },
  )
  if ('problem' in understood) throw createError({ statusCode: 422, message: understood.message })
  const plans = input.plans.map((plan, column) =>
    cleanPlan(plan as Partial<ColumnPlan>, column, understood.header[column]),
  )
  if (
    plans.length !== understood.header.length ||
    plans.filter((plan) => plan.target.to === 'address').length !== 1
  )
    throw createError({ statusCode: 422, message: 'Exactly one column must be the address.' })
  for (const list of listsNamed(plans, input.listId))
    if (!listById(db, list)) throw refused('This list is gone. Choose another.')
  if (subscribes(plans, input.listId) && (!input.consented || input.statement === ''))
    throw createError({
      statusCode: 422,
      message: 'Say how these people agreed to get what they are put on a list for.',
      data: { fields: { statement: 'Say how they agreed.' } },
    })
  const kindOf = (key: string) => fields.find((field) => field.key === key)?.kind
  const unclear = plans.find((plan) => asksForOrder(plan, kindOf))
  if (unclear)
    throw createError({
      statusCode: 422,
      message: `Say how the dates in ${unclear.header} are read: day first, or month first.`,
    })
  const id = transact(db, () => {
    const importId = createImport(
      db,
      {
        name: input.name,
        path,
        size: head.size,
        encoding: understood.encoding,
        delimiter: input.delimiter,
        table: understood.table,
        repeats: input.repeats,
        plans,
        listId: input.listId,
        statement: input.statement,
        mode: input.mode,
        clearEmpty: input.clearEmpty,
        tag: input.tag || null,
        state: input.preview ? 'counting' : 'waiting',
      },
      clock(),
    )
    const kind = input.preview ? 'preview-import' : 'import'
    rememberMapping(
      db,
      understood.header,
      plans,
      {
        mode: input.mode,
        clearEmpty: input.clearEmpty,
        listId: input.listId,
        repeats: input.repeats,
      },
      clock(),
    )
    updateImport(db, importId, { job_id: addJob(db, kind, { importId }, clock()) })
    return importId
  })
  return { id }
})

async function readHead(path: string): Promise<{ bytes: Uint8Array; size: number } | null> {
  try {
    const { size } = await stat(path)
    const file = await open(path)
    const { buffer, bytesRead } = await file.read(Buffer.alloc(previewBytes), 0, previewBytes, 0)
    await file.close()
    return { bytes: buffer.subarray(0, bytesRead), size }
  } catch {
    return null
  }
}

const listsNamed = (plans: readonly ColumnPlan[], listId: number | null) => [
  ...(listId === null ? [] : [listId]),
  ...plans.flatMap(({ target }) => (target.to === 'list' ? [target.listId] : [])),
]

/** A plan that came from outside: known targets only, anything else is skipped. */
function cleanPlan(plan: Partial<ColumnPlan>, column: number, header = ''): ColumnPlan {
  const target = plan.target as Record<string, unknown> | undefined
  const key =
    typeof target?.key === 'string' && /^[a-z_][a-z0-9_]{0,60}$/.test(target.key)
      ? target.key
      : null
  const clean: ColumnPlan = {
    column,
    header: header || `Column ${column + 1}`,
    samples: [],
    target: { to: 'skip' },
  }
  if (typeof plan.separator === 'string' && plan.separator.length === 1)
    clean.separator = plan.separator
  if (dateOrders.includes(plan.dateOrder as DateOrder))
    clean.dateOrder = plan.dateOrder as DateOrder
  if (plan.words) clean.words = cleanWords(plan.words)
  if (plan.decimal === ',' || plan.decimal === '.') clean.decimal = plan.decimal
  switch (target?.to) {
    case 'address':
    case 'whole-name':
    case 'tags':
      clean.target = { to: target.to }
      break
    case 'field':
      if (key) clean.target = { to: 'field', key }
      break
    case 'new-field':
      if (key && fieldKinds.includes(target.kind as FieldKind))
        clean.target = {
          to: 'new-field',
          key,
          kind: target.kind as FieldKind,
          name: (typeof target.name === 'string' ? target.name : header).trim().slice(0, 60) || key,
        }
      break
    case 'list':
      if (Number.isSafeInteger(target.listId))
        clean.target = { to: 'list', listId: target.listId as number }
  }
  return clean
}

/** Words of a column for yes and no: a few short ones, in lower case. */
function cleanWords(words: Partial<YesNoWords>): YesNoWords {
  const few = (given: unknown) =>
    (Array.isArray(given) ? given : [])
      .filter((word): word is string => typeof word === 'string')
      .map((word) => word.trim().toLowerCase().slice(0, 60))
      .filter((word) => word !== '')
      .slice(0, 30)
  return { yes: few(words.yes), no: few(words.no) }
}
