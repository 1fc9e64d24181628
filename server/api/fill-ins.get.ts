import { readerPaths } from '~~/database/reader-values'

/** What fill-ins can name of what readers did. */
export default defineEventHandler(() => readerPaths(satchel().db))
