import { commentsOn } from '~~/database/letters'

/** What was said about the blocks of the letter. */
export default defineEventHandler((event) => commentsOn(satchel().db, mailingOf(event).letter_id))
