import { userById } from '~~/database/account'
import { personDetails, addNote } from '~~/database/people'
import { noteInput } from '~~/shared/people-inputs'

/** Adds a note to a person, under the name of who is signed in. */
export default defineEventHandler(async (event) => {
  const id = idOf(event)
  const { text } = await readInput(event, noteInput)
  const { db, clock } = satchel()
  if (!personDetails(db, id)) throw notFound('This person is not on file.')
  const { user } = me(event)
  const name = userById(db, user.id)?.name ?? ''
  return { id: addNote(db, id, name, text, clock()) }
})
