import { readSequences } from '~~/database/sequences'

export default defineEventHandler(() => readSequences(satchel().db))
