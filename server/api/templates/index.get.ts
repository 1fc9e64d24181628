import { ownTemplates } from '~~/database/own-templates'

/** The account's own templates. */
export default defineEventHandler(() => ownTemplates(satchel().db))
