import { addList } from '~~/database/people'
import { listInput } from '~~/shared/people-inputs'

export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  return { id: addList(db, await readInput(event, listInput), clock()) }
})
