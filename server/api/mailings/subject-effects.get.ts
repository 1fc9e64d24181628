import { subjectEffects } from '~~/core/results'
import { sentSubjects } from '~~/database/results'

/** What the account's own mailings say about kinds of subjects. */
export default defineEventHandler(() => {
  const sent = sentSubjects(satchel().db)
  return { mailings: sent.length, effects: subjectEffects(sent) }
})
