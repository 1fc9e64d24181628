import { changeField, ownFields } from '~~/database/fields'
import { fieldChangeInput } from '~~/shared/people-inputs'

/** Renames a field, retires it, or brings it back. */
export default defineEventHandler(async (event) => {
  const { name, retired } = await readInput(event, fieldChangeInput)
  const { db, clock } = satchel()
  const key = getRouterParam(event, 'key')!
  const others = ownFields(db).filter((field) => field.key !== key)
  if (name && others.some((field) => field.name.toLowerCase() === name.toLowerCase()))
    throw fieldFault('name', 'There is a field with this name already. Join the two instead.')
  const change = {
    ...(name === undefined ? {} : { name }),
    ...(retired === undefined ? {} : { retired_at: retired ? clock() : null }),
  }
  if (Object.keys(change).length && !changeField(db, key, change))
    throw notFound('This field is not on file.')
  return { ok: true }
})
