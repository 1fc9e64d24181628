import { changeTag, tagVersion } from '~~/database/people'
import { tagInput } from '~~/shared/people-inputs'

/** Renames or colours a tag, over the version its editor saw. A name that another tag has is a fault: the two can be joined. */
export default defineEventHandler(async (event) => {
  const { name, color, version } = await readInput(event, tagInput)
  const { db } = satchel()
  const id = idOf(event)
  const now = tagVersion(db, id)
  if (now !== undefined && now !== version)
    throw overtaken('Somebody else changed this tag meanwhile. Look at theirs first.')
  const done = changeTag(db, id, {
    ...(name === undefined ? {} : { name }),
    ...(color === undefined ? {} : { color }),
  })
  if (done === 'gone') throw notFound('This tag is not on file.')
  if (done === 'taken')
    throw fieldFault('name', 'There is a tag with this name already. Join the two instead.')
  return { version: tagVersion(db, id)! }
})
