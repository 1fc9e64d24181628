import { usersOf } from '~~/database/account'

/** Everybody who works here. */
export default defineEventHandler(() => usersOf(satchel().db))
