import { auditLog } from '~~/database/account'

const PAGE = 100

/** The audit log, the latest first; with `before`, what stands before that entry. */
export default defineEventHandler((event) => {
  const before = Number(getQuery(event).before)
  return auditLog(satchel().db, Number.isSafeInteger(before) && before > 0 ? before : null, PAGE)
})
