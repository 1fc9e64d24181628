import { readFields } from '~~/database/lists'
import { personDetails, pulsesOf, valuesOf } from '~~/database/people'

export default defineEventHandler((event) => {
  const { db } = satchel()
  const id = idOf(event)
  const details = personDetails(db, id)
  if (!details) throw notFound('This person is not on file.')
  const { person, ...rest } = details
  return {
    id,
    address: person.address,
    name: [person.first_name, person.last_name].filter(Boolean).join(' '),
    joinedAt: person.joined_at,
    values: valuesOf(person),
    fields: readFields(db),
    pulse: pulsesOf(db, [id]).get(id)!,
    ...rest,
  }
})
