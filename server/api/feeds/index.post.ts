import { askForFeed, feedState } from '~~/database/letters'
import { feedInput } from '~~/shared/letter-inputs'

/** Has a feed read again. */
export default defineEventHandler(async (event) => {
  const { url } = await readInput(event, feedInput)
  const { db, clock } = satchel()
  askForFeed(db, url, clock())
  return feedState(db, url, clock())
})
