import { labelled, MOST_LABELS, MOST_ON_ONE } from '~~/core/labels'
import { putLabel } from '~~/database/labels'
import { labelOnInput } from '~~/shared/label-inputs'

/** Puts a label on something, by its name; one that is not there is made. */
export default defineEventHandler(async (event) => {
  const { name, kind, itemId } = await readInput(event, labelOnInput)
  const label = putLabel(satchel().db, name, kind, itemId)
  if (label === 'gone') throw notFound(`This ${labelled[kind].one} is not there any more.`)
  if (label === 'many')
    throw refused(
      `One ${labelled[kind].one} has up to ${MOST_ON_ONE} labels, and an account up to ${MOST_LABELS}. Remove one first.`,
    )
  return label
})
