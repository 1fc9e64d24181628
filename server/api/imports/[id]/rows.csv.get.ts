import Papa from 'papaparse'
import type { ColumnPlan } from '~~/core/people'
import { importById, importNotices } from '~~/database/imports'

/** The refused or doubtful rows as they stood in the file, with the row's number and the reason. */
export default defineEventHandler((event) => {
  const { db } = satchel()
  const found = importById(db, idOf(event))
  if (!found) throw notFound('This import is not on file.')
  const verdict = verdictAsked(event)
  const header = (JSON.parse(found.plans) as ColumnPlan[]).map((plan) => plan.header)
  const rows = importNotices(db, found.id, verdict).map((notice) => [
    ...(JSON.parse(notice.cells) as string[]),
    notice.row,
    notice.reason,
  ])
  setResponseHeaders(event, {
    'Content-Type': 'text/csv; charset=utf-8',
    'Content-Disposition': `attachment; filename="${verdict}-rows-${found.id}.csv"`,
  })
  return `\ufeff${Papa.unparse([[...header, 'Row', 'Reason'], ...rows], { escapeFormulae: true })}\r\n`
})
