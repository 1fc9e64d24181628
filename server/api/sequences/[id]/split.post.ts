import { decideSplit } from '~~/database/sequences'
import { splitInput } from '~~/shared/mailing-inputs'

/** Sends everybody who comes from now on by one way of a split, or by its lot again. */
export default defineEventHandler(async (event) => {
  const { step, way, since } = await readInput(event, splitInput)
  const { db, clock } = satchel()
  const { user } = me(event)
  const sequence = sequenceOf(event)
  if (!decideSplit(db, sequence, { step, since }, way, user.name, clock())) {
    const isMail = sequence.map.steps[step]?.kind === 'mail'
    const what = isMail ? 'What is tried at this mail' : 'This split'
    throw overtaken(`${what} has changed since you saw it. Look at it again.`)
  }
  return { ok: true }
})
