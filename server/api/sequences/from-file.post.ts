import { readSequenceFile } from '~~/core/sequences'
import { readLists } from '~~/database/people'
import { readCatalog } from '~~/database/segments'
import { bringInSequence } from '~~/database/sequences'
import { sequenceFileInput } from '~~/shared/mailing-inputs'

/** A draft out of a file; with what of it is not there in this account. */
export default defineEventHandler(async (event) => {
  const { text } = await readInput(event, sequenceFileInput)
  const { db, clock } = satchel()
  const read = readSequenceFile(text, readCatalog(db))
  if ('problem' in read) throw createError({ statusCode: 422, message: read.problem })
  const id = bringInSequence(db, read, readLists(db)[0]?.id ?? null, clock())
  return { id, missing: read.missing }
})
