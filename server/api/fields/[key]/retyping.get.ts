import { fieldKinds, type FieldKind } from '~~/core/people'

/** What would come of a field's values if it were of another kind. */
export default defineEventHandler((event) => {
  const kind = String(getQuery(event).kind)
  if (!fieldKinds.includes(kind as FieldKind)) throw notFound('There is no such kind of field.')
  const key = getRouterParam(event, 'key')!
  return askLong('retyping', { key, kind: kind as FieldKind }, `retyping ${key}`)
})
