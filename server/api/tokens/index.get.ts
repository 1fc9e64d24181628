import { apiTokens } from '~~/database/imports'

export default defineEventHandler(() => apiTokens(satchel().db))
