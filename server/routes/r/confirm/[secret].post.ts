import { everythingKnown } from '~~/database/people'
import { changeAddress, eraseMyself } from '~~/cases/readers'

/** Carries out what a reader asked for, now that they pressed the button behind the mailed link. */
export default defineEventHandler((event) => {
  const found = confirmingOf(event)
  if (!found) return linkOver(event)
  const { request, told } = found
  const { db, clock, hostClock } = satchel()
  const times = { now: clock(), hostNow: hostClock() }
  const language = told.language
  if (request.kind === 'known') {
    setResponseHeaders(event, {
      'Content-Type': 'application/json; charset=utf-8',
      'Content-Disposition': 'attachment; filename="what-we-know.json"',
      'Cache-Control': 'no-store',
    })
    return JSON.stringify(everythingKnown(db, request.person_id), null, 2)
  }
  if (request.kind === 'erase') {
    if (!eraseMyself(db, request, times)) return linkOver(event)
    return publicPage(event, {
      title: told.plain('erased'),
      body: `<p>${told.html('erasedAbout')}</p>`,
      language,
    })
  }
  if (!changeAddress(db, request, { told, ...fromWhere(event) }, times)) return linkOver(event)
  return publicPage(event, {
    title: told.plain('addressChanged', { address: request.address! }),
    body: `<p>${told.html('atOnce')}</p>`,
    language,
  })
})
