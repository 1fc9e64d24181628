import { readMap } from '~~/core/sequences'
import { listById } from '~~/database/people'
import { changeSequence } from '~~/database/sequences'
import { sequenceInput } from '~~/shared/mailing-inputs'

/** Changes a sequence over the revision its editor saw; where somebody was faster, it says so and changes nothing. */
export default defineEventHandler(async (event) => {
  const { name, listId, map: given, revision } = await readInput(event, sequenceInput)
  const { db } = satchel()
  const sequence = sequenceOf(event)
  const map = readMap(given)
  if (!map) throw refused('This map can’t be read, so it was not kept.')
  if (listId !== null && !listById(db, listId)) throw refused('This list is gone. Choose another.')
  if (sequence.version > 0 && listId !== sequence.list_id)
    throw refused(
      'It has run on behalf of its list, so it stays with it. Begin another for another list.',
    )
  if (!changeSequence(db, sequence, { name, listId, map }, revision))
    throw overtaken(
      'Somebody else has changed this sequence in the meantime. Look at theirs first.',
    )
  return { revision: revision + 1 }
})
