import { letterheads, ownLetterheadVersion } from '~~/database/letters'

/** The account's own letterhead, and the others by name. */
export default defineEventHandler(() => ({
  own: account().letterhead,
  ownVersion: ownLetterheadVersion(satchel().db),
  others: letterheads(satchel().db),
}))
