import { readRoundsAsked } from '~~/core/sequences'

/** The rounds behind a figure of a sequence's results, one by one, with what was asked for. */
export default defineEventHandler(async (event) => {
  const { clock } = satchel()
  const sequence = sequenceOf(event)
  const asked = readRoundsAsked(getQuery(event))
  if (!asked) throw refused('Say whose rounds: who came, is inside, finished or left.')
  const which = roundsOf(event, sequence)
  const { id } = sequence
  const from = `rounds of sequence ${id} for ${me(event).user.id}`
  const found = await askLong('rounds', { sequenceId: id, asked, which, now: clock() }, from)
  return { asked, which, ...found }
})
