import { sequenceProblems, startSequence } from '~~/database/sequences'

/** Lets a sequence run from now on. What it lacks keeps it from it. */
export default defineEventHandler((event) => {
  const { db, clock, sends } = satchel()
  const sequence = sequenceOf(event)
  if (!sends)
    throw refused(
      'No mail server is set, so nothing can go out. Start Satchel with SATCHEL_SMTP_URL.',
    )
  const problems = sequenceProblems(db, sequence, clock())
  if (problems.length) throw refused(`It can’t start yet. ${problems.join(' ')}`)
  if (!startSequence(db, sequence, clock())) throw refused('It runs already, or has ended.')
  return { ok: true }
})
