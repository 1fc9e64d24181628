import { changeTag } from '~~/database/tags'
import { tagInput } from '~~/shared/people-inputs'

/** Renames or colours a tag. A name that another tag has is a fault: the two can be joined. */
export default defineEventHandler(async (event) => {
  const { name, color } = await readInput(event, tagInput)
  const done = changeTag(satchel().db, idOf(event), {
    ...(name === undefined ? {} : { name }),
    ...(color === undefined ? {} : { color }),
  })
  if (done === 'gone') throw notFound('This tag is not on file.')
  if (done === 'taken')
    throw fieldFault('name', 'There is a tag with this name already. Join the two instead.')
  return { ok: true }
})
