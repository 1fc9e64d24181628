import { userById } from '~~/database/account'
import { addTask, personDetails } from '~~/database/people'
import { taskInput } from '~~/shared/people-inputs'

/** Something is to be done about a person, by the word of who is signed in. */
export default defineEventHandler(async (event) => {
  const id = idOf(event)
  const { text, due, to } = await readInput(event, taskInput)
  const { db, clock } = satchel()
  if (!personDetails(db, id)) throw notFound('This person is not on file.')
  const by = userById(db, me(event).user.id)?.name ?? ''
  return { id: addTask(db, id, { text, due, for: to, by }, clock()) }
})
