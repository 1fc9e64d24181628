import { letterVersions } from '~~/database/letters'

/** The versions of a mailing's letter, the latest first. */
export default defineEventHandler((event) =>
  letterVersions(satchel().db, mailingOf(event).letter_id),
)
