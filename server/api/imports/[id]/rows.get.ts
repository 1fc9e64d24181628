import { importById, importNotices } from '~~/database/imports'

/** Rows at a time. */
const PAGE = 100

/** Rows that are refused, or doubtful, page by page. */
export default defineEventHandler((event) => {
  const { db } = satchel()
  const id = idOf(event)
  if (!importById(db, id)) throw notFound('This import is not on file.')
  const after = Number(getQuery(event).after) || 0
  const rows = importNotices(db, id, verdictAsked(event), { after, limit: PAGE + 1 })
  return { rows: rows.slice(0, PAGE), more: rows.length > PAGE }
})
