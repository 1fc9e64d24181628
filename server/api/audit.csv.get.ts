import { Readable } from 'node:stream'
import { csvRow } from '~~/core/people'
import { auditLog } from '~~/database/account'

const AT_ONCE = 1_000

/** The whole audit log as CSV (RFC 4180), the latest first. */
export default defineEventHandler((event) => {
  const { db } = satchel()
  setResponseHeaders(event, {
    'Content-Type': 'text/csv; charset=utf-8',
    'Content-Disposition': 'attachment; filename="audit.csv"',
    'Cache-Control': 'no-store',
  })
  function* lines() {
    yield csvRow(['at', 'user', 'did', 'what', 'address', 'device'])
    let before: number | null = null
    for (;;) {
      const rows = auditLog(db, before, AT_ONCE)
      yield rows
        .map(({ at, user_name, did, what, address, device }) =>
          csvRow([new Date(at).toISOString(), user_name, did, what, address, device]),
        )
        .join('')
      if (rows.length < AT_ONCE) return
      before = rows.at(-1)!.id
    }
  }
  return sendStream(event, Readable.from(lines()))
})
