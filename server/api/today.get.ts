import { runSheet } from '~~/cases/today'

export default defineEventHandler(() => {
  const { db, clock } = satchel()
  return runSheet(db, clock())
})
