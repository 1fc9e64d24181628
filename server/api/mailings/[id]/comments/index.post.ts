import { addComment } from '~~/database/letters'
import { commentInput } from '~~/shared/letter-inputs'

/** Says something about a block, or answers what was said. */
export default defineEventHandler(async (event) => {
  const said = await readInput(event, commentInput)
  const { db, clock } = satchel()
  const { letter_id } = mailingOf(event)
  const id = addComment(db, letter_id, said, author(event), clock())
  if (id === null) throw notFound('What you answer is not there any more.')
  return { id }
})
