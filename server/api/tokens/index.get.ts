import { apiTokens } from '~~/database/api'

export default defineEventHandler(() => apiTokens(satchel().db))
