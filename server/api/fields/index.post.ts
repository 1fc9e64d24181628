import { fieldKeyFor } from '~~/core/people'
import { addField, ownFields } from '~~/database/people'
import { fieldInput } from '~~/shared/people-inputs'

/** Makes a field; its key. */
export default defineEventHandler(async (event) => {
  const { name, kind } = await readInput(event, fieldInput)
  const { db } = satchel()
  const fields = ownFields(db)
  if (fields.some((field) => field.name.toLowerCase() === name.toLowerCase()))
    throw fieldFault('name', 'There is a field with this name already.')
  const key = fieldKeyFor(
    name,
    new Set(['first_name', 'last_name', 'address', ...fields.map((field) => field.key)]),
  )
  addField(db, { key, name, kind })
  return { key }
})
