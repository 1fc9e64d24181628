import { readMap } from '~~/core/sequences'
import { personDetails } from '~~/database/people'
import { drawAudience, mapOfVersion } from '~~/database/sequences'
import { rehearsalInput } from '~~/shared/mailing-inputs'

/** Whom a map is rehearsed with, and what is known of them; beside it another version, where there is one. */
export default defineEventHandler(async (event) => {
  const { map: given, listId, personId, beside: asked } = await readInput(event, rehearsalInput)
  const { db, clock } = satchel()
  const sequence = sequenceOf(event)
  const map = readMap(given)
  if (!map) throw refused('This map can’t be read.')
  if (listId === null) throw refused('Choose the list on whose behalf it writes first.')
  if (personId !== undefined && !personDetails(db, personId)) throw notFound('This person is gone.')
  if (asked !== undefined && asked > sequence.version) throw notFound('There is no such version.')
  const version = asked ?? sequence.version
  const beside = version > 0 ? { version, map: mapOfVersion(db, sequence.id, version) } : null
  const maps = beside ? [map, beside.map] : [map]
  const asking = { sequenceId: sequence.id, listId, maps, personId }
  return { audience: drawAudience(db, asking, clock()), beside, now: clock() }
})
