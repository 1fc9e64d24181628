import { answersByProvider } from '~~/database/results'

/** What each mailbox provider answered to those whom it did not simply take. */
export default defineEventHandler((event) => answersByProvider(satchel().db, mailingOf(event).id))
