import { sequenceMails } from '~~/database/results'

/** Every mail of sequences that has begun, with what came of it. */
export default defineEventHandler(() => sequenceMails(satchel().db))
