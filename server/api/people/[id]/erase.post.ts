import { checkAddress } from '~~/core/people'
import { personDetails, erasePerson } from '~~/database/people'
import { eraseInput } from '~~/shared/people-inputs'

/** Erases a person for good; the address must be written once more. */
export default defineEventHandler(async (event) => {
  const id = idOf(event)
  const { address } = await readInput(event, eraseInput)
  const { db, clock } = satchel()
  const found = personDetails(db, id)
  if (!found) throw notFound('This person is not on file.')
  const written = checkAddress(address)
  if (!written.ok || written.normal !== found.person.normal)
    throw fieldFault('address', 'This is not their address. Nothing was erased.')
  erasePerson(db, id, clock())
  return { ok: true }
})
