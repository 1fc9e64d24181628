import { changeLabel, labelVersion } from '~~/database/labels'
import { labelInput } from '~~/shared/label-inputs'

/** Renames a label, over the version its editor saw. A name that another has is a fault: the two can be merged. */
export default defineEventHandler(async (event) => {
  const { name, version } = await readInput(event, labelInput)
  const { db } = satchel()
  const id = idOf(event)
  const now = labelVersion(db, id)
  if (now !== undefined && now !== version)
    throw overtaken('Somebody else renamed this label meanwhile. Look at theirs first.')
  const done = changeLabel(db, id, name)
  if (done === 'gone') throw notFound('This label is not there any more.')
  if (done === 'taken')
    throw fieldFault('name', 'There is a label with this name already. Merge the two instead.')
  return { version: labelVersion(db, id)! }
})
