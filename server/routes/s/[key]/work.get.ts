/** A little work for the browser of somebody who begins to fill in a form. */
export default defineEventHandler(async (event) => {
  const live = liveFormOf(event)
  const site = siteAsking(event)
  const away = site !== null && site !== new URL(satchel().url).origin
  if (!live || (away && !mayStandOn(live.form, site)))
    throw createError({ statusCode: 404, message: 'There is no live form under this key.' })
  if (away) readableOn(event, site)
  setResponseHeader(event, 'Cache-Control', 'no-store')
  return newWork(live.signUp.id)
})
