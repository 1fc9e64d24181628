import { moveWish } from '~~/cases/mailings'
import { moveInput } from '~~/shared/mailing-inputs'

/** Moves a scheduled mailing to another day or time; answers the wish before, so that exactly that can be restored. */
export default defineEventHandler(async (event) => {
  const { wish } = await readInput(event, moveInput)
  const { db, clock } = satchel()
  const { id } = dispatchedMailingOf(event)
  const moved = moveWish(db, id, wish, account().zone, clock())
  if ('refused' in moved) throw refused(moved.refused)
  return moved
})
