import { decideSplit } from '~~/database/sequences'
import { splitInput } from '~~/shared/mailing-inputs'

/** Sends everybody who comes from now on by one way of a split, or by its lot again. */
export default defineEventHandler(async (event) => {
  const { step, way, since } = await readInput(event, splitInput)
  const { db, clock } = satchel()
  const { user } = me(event)
  if (!decideSplit(db, sequenceOf(event), { step, since }, way, user.name, clock()))
    throw overtaken('This split has changed since you saw it. Look at it again.')
  return { ok: true }
})
