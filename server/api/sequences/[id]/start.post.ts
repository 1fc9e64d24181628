import { startSequence } from '~~/database/sequences'
import { sequenceProblems } from '~~/cases/sequences'
import { sequenceStartInput } from '~~/shared/mailing-inputs'

/** Lets a sequence run from now on, or publishes what was drawn beside it, as it was seen. What it lacks keeps it from it. */
export default defineEventHandler(async (event) => {
  const { revision, moves, spread } = await readInput(event, sequenceStartInput)
  const { db, clock, sends } = satchel()
  const sequence = sequenceOf(event)
  if (!sends)
    throw refused(
      'No mail server is set, so nothing can go out. Start Satchel with SATCHEL_SMTP_URL.',
    )
  if (sequence.revision !== revision)
    throw overtaken('It has changed since you saw it. Look at it again, then start it.')
  const problems = sequenceProblems(db, sequence, clock())
  const what = sequence.state === 'running' ? 'be published' : 'start'
  if (problems.length)
    throw refused(
      `It can’t ${what} yet. ${[...new Set(problems.map(({ title }) => title))].join(' ')}`,
    )
  if (!startSequence(db, sequence, clock(), { moves, spread }))
    throw refused('It runs already as it is drawn, or has ended.')
  return { ok: true }
})
