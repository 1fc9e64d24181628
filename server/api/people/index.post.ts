import { transact } from '~~/database'
import {
  erasedAsker,
  listById,
  tagNamed,
  addPerson,
  listPeople,
  tagPeople,
} from '~~/database/people'
import { personInput } from '~~/shared/people-inputs'

/** Adds one person by hand, with the reason why they may be mailed. */
export default defineEventHandler(async (event) => {
  const input = await readInput(event, personInput)
  const { db, clock } = satchel()
  const address = addressFrom(input.address)
  const given = Object.entries(valuesFrom(input.values)).filter(([, value]) => value !== null)
  for (const list of input.lists)
    if (!listById(db, list)) throw fieldFault('lists', 'This list is gone. Choose another.')
  if (erasedAsker(db)(address.normal))
    throw refused('Somebody with this address was erased at their wish, and is not taken in again.')
  const now = clock()
  return transact(db, () => {
    const values = Object.fromEntries(given) as Record<string, string>
    const id = addPerson(
      db,
      { ...address, values, source: `by hand${input.source ? `: ${input.source}` : ''}` },
      now,
    )
    if (id === null) throw fieldFault('address', 'Somebody with this address is on file already.')
    for (const list of input.lists) listPeople(db, [id], list, 'subscribed', input.reason!, now)
    for (const tag of input.tags) tagPeople(db, [id], tagNamed(db, tag), true)
    return { id }
  })
})
