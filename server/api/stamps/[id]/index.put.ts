import { changeStamp, readStampContent, renameStamp, stampById } from '~~/database/letters'
import { stampChangeInput } from '~~/shared/letter-inputs'

/** Renames a stamp, or changes what it holds; says which letters followed. 409 where somebody was faster. */
export default defineEventHandler(async (event) => {
  const { name, row, version } = await readInput(event, stampChangeInput)
  const { db, clock } = satchel()
  const id = idOf(event)
  if (!stampById(db, id)) throw notFound('This stamp is not there any more.')
  if (name !== undefined) renameStamp(db, id, name)
  if (row === undefined) return { followed: [] }
  const content = readStampContent(row)
  if (!content) throw createError({ statusCode: 422, message: 'There is nothing in this row.' })
  const followed = changeStamp(db, id, content, version ?? 0, author(event), clock())
  if (!followed)
    throw overtaken('Somebody else has changed this stamp meanwhile. Look at it again first.')
  return { followed, version: (version ?? 0) + 1 }
})
