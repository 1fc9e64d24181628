import { readStamps } from '~~/database/letters'

/** The stamps, and which letters are linked to each. */
export default defineEventHandler(() => readStamps(satchel().db))
