import { revokeApiToken } from '~~/database/imports'

export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  if (!revokeApiToken(db, idOf(event), clock())) throw notFound('This token is gone already.')
  return { ok: true }
})
