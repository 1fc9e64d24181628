import { readerPaths } from '~~/database/mailings'

/** What fill-ins can name of what readers did. */
export default defineEventHandler(() => readerPaths(satchel().db))
