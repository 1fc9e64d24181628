import { readMap } from '~~/core/sequences'
import { personDetails } from '~~/database/people'
import { drawAudience, mapOfVersion } from '~~/database/sequences'
import { rehearsalInput } from '~~/shared/mailing-inputs'

/** Whom a map is rehearsed with, and what is known of them; beside it the version that ran last, where there is one. */
export default defineEventHandler(async (event) => {
  const { map: given, listId, personId } = await readInput(event, rehearsalInput)
  const { db, clock } = satchel()
  const sequence = sequenceOf(event)
  const map = readMap(given)
  if (!map) throw refused('This map can’t be read.')
  if (listId === null) throw refused('Choose the list on whose behalf it writes first.')
  if (personId !== undefined && !personDetails(db, personId)) throw notFound('This person is gone.')
  const last = sequence.version > 0 ? mapOfVersion(db, sequence.id, sequence.version) : null
  const maps = last ? [map, last] : [map]
  const asking = { sequenceId: sequence.id, listId, maps, personId }
  return { audience: drawAudience(db, asking, clock()), last, now: clock() }
})
