import { trendOf } from '~~/database/segments'

/** A segment's size by day, and who came and went because of what. */
export default defineEventHandler((event) => trendOf(satchel().db, idOf(event)))
