import { letterheads } from '~~/database/letterheads'

/** The account's own letterhead, and the others by name. */
export default defineEventHandler(() => ({
  own: account().letterhead,
  others: letterheads(satchel().db),
}))
