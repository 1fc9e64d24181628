import { mailingResults } from '~~/cases/results'

export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  return mailingResults(db, mailingOf(event), clock())
})
