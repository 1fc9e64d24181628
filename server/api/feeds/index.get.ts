import { feedState } from '~~/database/letters'
import { feedInput } from '~~/shared/letter-inputs'

/** What a feed told when it was read last; one not read lately is asked for. */
export default defineEventHandler(async (event) => {
  const { url } = await feedInput.validate({ url: getQuery(event).url }).catch((problem: Error) => {
    throw refused(problem.message)
  })
  const { db, clock } = satchel()
  return feedState(db, url, clock())
})
