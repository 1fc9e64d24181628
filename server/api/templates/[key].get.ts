import { frameOf, letterSample } from '~~/cases/letters'

/** A template as a letter of this account would look that is made from it. */
export default defineEventHandler((event) => {
  const { db, url } = satchel()
  const { letter } = templateWith(getRouterParam(event, 'key') ?? '')
  return madeOrRefused(letterSample(letter, frameOf(db, { list_id: null }, url)))
})
