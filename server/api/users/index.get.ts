import { usersOf } from '~~/database/users'

/** Everybody who works here. */
export default defineEventHandler(() => usersOf(satchel().db))
