import { tagsWithCounts } from '~~/database/tags'

export default defineEventHandler(() => tagsWithCounts(satchel().db))
