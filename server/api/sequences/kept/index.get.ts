import { keptSequences } from '~~/database/sequences'

/** The account's own templates of sequences. */
export default defineEventHandler(() => keptSequences(satchel().db))
