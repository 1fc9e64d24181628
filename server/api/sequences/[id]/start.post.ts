import { startSequence } from '~~/database/sequences'
import { sequenceProblems } from '~~/cases/sequences'
import { sequenceStartInput } from '~~/shared/mailing-inputs'

/** Lets a sequence run from now on, as it was seen by who starts it. What it lacks keeps it from it. */
export default defineEventHandler(async (event) => {
  const { revision } = await readInput(event, sequenceStartInput)
  const { db, clock, sends } = satchel()
  const sequence = sequenceOf(event)
  if (!sends)
    throw refused(
      'No mail server is set, so nothing can go out. Start Satchel with SATCHEL_SMTP_URL.',
    )
  if (sequence.revision !== revision)
    throw overtaken('It has changed since you saw it. Look at it again, then start it.')
  const problems = sequenceProblems(db, sequence, clock())
  if (problems.length) throw refused(`It can’t start yet. ${problems.join(' ')}`)
  if (!startSequence(db, sequence, clock())) throw refused('It runs already, or has ended.')
  return { ok: true }
})
