import { changePerson, personDetails } from '~~/database/people'
import { personChangeInput } from '~~/shared/people-inputs'

/** Changes a person where they stand; answers with what undoes it. */
export default defineEventHandler(async (event) => {
  const id = idOf(event)
  const input = await readInput(event, personChangeInput)
  const { db, clock } = satchel()
  if (!personDetails(db, id)) throw notFound('This person is not on file.')
  const undo = changePerson(
    db,
    id,
    { ...(input.address ? addressFrom(input.address) : {}), values: valuesFrom(input.values) },
    clock(),
  )
  if (!undo)
    throw fieldFault('address', 'Somebody else with this address is on file. Merge the two.')
  return { undo: { address: undo.address, values: undo.values } }
})
