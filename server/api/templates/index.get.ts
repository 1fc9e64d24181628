import { ownTemplates } from '~~/database/letters'

/** The account's own templates. */
export default defineEventHandler(() => ownTemplates(satchel().db))
