import { changeField, fieldVersion, ownFields } from '~~/database/people'
import { fieldChangeInput } from '~~/shared/people-inputs'

/** Renames a field, opens it to readers, retires it, or brings it back, over the version its editor saw. */
export default defineEventHandler(async (event) => {
  const { name, retired, readers, version } = await readInput(event, fieldChangeInput)
  const { db, clock } = satchel()
  const key = getRouterParam(event, 'key')!
  const now = fieldVersion(db, key)
  if (now === undefined) throw notFound('This field is not on file.')
  if (now !== version)
    throw overtaken('Somebody else changed this field meanwhile. Look at theirs first.')
  const others = ownFields(db).filter((field) => field.key !== key)
  if (name && others.some((field) => field.name.toLowerCase() === name.toLowerCase()))
    throw fieldFault('name', 'There is a field with this name already. Join the two instead.')
  const change = {
    ...(name === undefined ? {} : { name }),
    ...(readers === undefined ? {} : { readers: Number(readers) }),
    ...(retired === undefined ? {} : { retired_at: retired ? clock() : null }),
  }
  if (Object.keys(change).length) changeField(db, key, change)
  return { version: fieldVersion(db, key)! }
})
