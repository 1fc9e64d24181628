import { takeOut } from '~~/database/sequences'
import { takeOutInput } from '~~/shared/mailing-inputs'

/** Takes somebody out of a sequence by hand, of every round they are inside; they get nothing more from it. */
export default defineEventHandler(async (event) => {
  const { personId } = await readInput(event, takeOutInput)
  const { db, clock } = satchel()
  if (takeOut(db, sequenceOf(event).id, personId, clock()) === 0)
    throw refused('They are not inside it any more.')
  return { ok: true }
})
